import { childOf, childrenOf, type Element, readXml } from '../xml/tree.ts';

/** A value of XML-RPC (xmlrpc.com, specification of 15 June 1999), as far as calls to blogs send any. */
export type Value = string | number | boolean | Date | Buffer | Value[] | { [name: string]: Value };
/** A value as it is read: moments as text in ISO 8601, bytes as base64. */
export type Given = string | number | boolean | null | Given[] | { [name: string]: Given };

export type MethodResponse =
  | { kind: 'value'; value: Given }
  | { kind: 'fault'; code: number; said: string }
  | { kind: 'unreadable'; problem: string };

/** Letters of a fault that are read. */
const LONGEST_SAID = 500;

/** Letters XML 1.0 has no way to say. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: these are the ones
const NO_XML = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;

/** Text as it stands in XML. */
export function escapeXml(text: string): string {
  return text
    .replace(NO_XML, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
}

/** A call as it is sent. */
export function methodCall(method: string, params: readonly Value[]): string {
  const sent = params.map((value) => `<param>${valueXml(value)}</param>`).join('');
  return `<?xml version="1.0" encoding="UTF-8"?>\n<methodCall><methodName>${escapeXml(method)}</methodName><params>${sent}</params></methodCall>`;
}

function valueXml(value: Value): string {
  return `<value>${typed(value)}</value>`;
}

function typed(value: Value): string {
  if (typeof value === 'string') return `<string>${escapeXml(value)}</string>`;
  if (typeof value === 'boolean') return `<boolean>${value ? 1 : 0}</boolean>`;
  if (typeof value === 'number') return Number.isInteger(value) ? `<int>${value}</int>` : `<double>${value}</double>`;
  if (value instanceof Date) return `<dateTime.iso8601>${momentXml(value)}</dateTime.iso8601>`;
  if (Buffer.isBuffer(value)) return `<base64>${value.toString('base64')}</base64>`;
  if (Array.isArray(value)) return `<array><data>${value.map(valueXml).join('')}</data></array>`;
  const members = Object.entries(value).map(
    ([name, one]) => `<member><name>${escapeXml(name)}</name>${valueXml(one)}</member>`,
  );
  return `<struct>${members.join('')}</struct>`;
}

/** `20261129T08:00:00Z`: the specification leaves the zone open, so it is said. */
const momentXml = (at: Date): string => `${at.toISOString().slice(0, 19).replaceAll('-', '')}Z`;

/** What a server answers: a value, or a fault with its code. */
export function readMethodResponse(text: string): MethodResponse {
  const read = readXml(text);
  if (!read.ok) return { kind: 'unreadable', problem: read.problem };
  if (read.root.name !== 'methodresponse') return { kind: 'unreadable', problem: 'it is no answer of XML-RPC' };
  const fault = childOf(read.root, 'fault');
  if (fault) {
    const said = givenIn(childOf(fault, 'value'));
    const { faultCode = 0, faultString = '' } = isStruct(said) ? said : {};
    return { kind: 'fault', code: Number(faultCode) || 0, said: String(faultString).slice(0, LONGEST_SAID) };
  }
  const param = childOf(childOf(read.root, 'params') ?? read.root, 'param');
  return { kind: 'value', value: givenIn(param && childOf(param, 'value')) };
}

export const isStruct = (value: Given | undefined): value is { [name: string]: Given } =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function givenIn(element: Element | null): Given {
  if (!element) return null;
  const [type] = element.children;
  // Without a type it is text.
  if (!type) return element.text;
  switch (type.name) {
    case 'i4':
    case 'int':
    case 'i8':
    case 'double':
      return Number(type.text.trim()) || 0;
    case 'boolean':
      return type.text.trim() === '1';
    case 'datetime.iso8601':
      return momentOf(type.text.trim());
    case 'base64':
      return type.text.replace(/\s+/g, '');
    case 'array':
      return childrenOf(childOf(type, 'data') ?? type, 'value').map(givenIn);
    case 'struct':
      return Object.fromEntries(
        childrenOf(type, 'member').map((member) => [
          childOf(member, 'name')?.text.trim() ?? '',
          givenIn(childOf(member, 'value')),
        ]),
      );
    case 'nil':
      return null;
    default:
      return type.text;
  }
}

const MOMENT = /^(\d{4})-?(\d\d)-?(\d\d)T(\d\d):?(\d\d):?(\d\d)(?:\.\d+)?(Z|[+-]\d\d:?\d\d)?$/;

/** In ISO 8601, taken as UTC where no zone is said; as it stands where it is no moment. */
function momentOf(text: string): string {
  const [, year, month, day, hour, minute, second, zone = 'Z'] = MOMENT.exec(text) ?? [];
  return year ? `${year}-${month}-${day}T${hour}:${minute}:${second}${zone}` : text;
}
