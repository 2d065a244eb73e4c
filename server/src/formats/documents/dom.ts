/** As much of a document's tree (DOM Living Standard) as its readers use; the server knows no browser's types. */
export interface DomNode {
  readonly nodeType: number;
  readonly childNodes: Iterable<DomNode>;
  readonly textContent: string | null;
  remove(): void;
}

export interface DomElement extends DomNode {
  readonly tagName: string;
  getAttribute(name: string): string | null;
  matches(selector: string): boolean;
  closest(selector: string): DomElement | null;
  querySelector(selector: string): DomElement | null;
  querySelectorAll(selector: string): Iterable<DomElement>;
}

export interface DomDocument {
  readonly documentElement: DomElement | null;
  readonly body: DomElement | null;
  readonly title: string;
  querySelector(selector: string): DomElement | null;
  querySelectorAll(selector: string): Iterable<DomElement>;
}
