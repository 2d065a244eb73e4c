import type { FolderSettings } from '@grivo/contract';

type Choice<Value> = readonly { value: Value; says: string; does: string }[];

export const FORMS: Choice<FolderSettings['form']> = [
  { value: 'Markdown', says: 'Markdown', does: 'with front matter, for a program that makes the site of it' },
  { value: 'HTML', says: 'pages of HTML', does: 'whole pages, to be served as they are' },
];

export const HEADS: Choice<FolderSettings['head']> = [
  { value: 'YAML', says: 'YAML', does: 'between lines of ---' },
  { value: 'TOML', says: 'TOML', does: 'between lines of +++' },
  { value: 'JSON', says: 'JSON', does: 'as one object' },
];
