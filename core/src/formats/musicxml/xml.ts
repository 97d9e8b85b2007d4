/** XML as trees of elements: built, written and read by `fast-xml-parser` and its sisters. Entities of a document's own are never expanded or fetched. */
import XMLBuilder from 'fast-xml-builder';
import { XMLParser } from 'fast-xml-parser';
import { SyntaxValidator } from 'fast-xml-validator';

export interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly (Element | string)[];
}

type Child = Element | string | number | null | readonly Child[];

/** Nulls are left out, lists stand in line. */
export function element(
  name: string,
  attributes: Readonly<Record<string, string | number | null>> = {},
  ...children: readonly Child[]
): Element {
  const said = Object.entries(attributes).filter(([, value]) => value !== null);
  const flat = (child: Child): readonly (Element | string)[] => {
    if (child === null) return [];
    if (typeof child === 'string') return [child];
    if (typeof child === 'number') return [String(child)];
    return isList(child) ? child.flatMap(flat) : [child];
  };
  return {
    name,
    attributes: Object.fromEntries(said.map(([key, value]) => [key, String(value)])),
    children: children.flatMap(flat),
  };
}

function isList(child: Element | readonly Child[]): child is readonly Child[] {
  return Array.isArray(child);
}

const TEXT = '#text';
const ATTRIBUTES = ':@';
const PREFIX = '@_';

/** What the package reads and writes where order matters: one key for the element's name, one for its attributes. */
type Ordered = Readonly<Record<string, unknown>>;

function toOrdered(node: Element | string): Ordered {
  if (typeof node === 'string') return { [TEXT]: node };
  const attributes = Object.entries(node.attributes).map(([key, value]): [string, string] => [
    PREFIX + key,
    value,
  ]);
  return {
    [node.name]: node.children.map(toOrdered),
    ...(attributes.length > 0 && { [ATTRIBUTES]: Object.fromEntries(attributes) }),
  };
}

function fromOrdered(ordered: Ordered): Element | string {
  if (TEXT in ordered) return String(ordered[TEXT]);
  const name = Object.keys(ordered).find((key) => key !== ATTRIBUTES) ?? '';
  const attributes = Object.entries((ordered[ATTRIBUTES] ?? {}) as Ordered).map(
    ([key, value]): [string, string] => [key.slice(PREFIX.length), String(value)],
  );
  return {
    name,
    attributes: Object.fromEntries(attributes),
    children: (ordered[name] as readonly Ordered[]).map(fromOrdered),
  };
}

/** Characters that XML 1.0 (section 2.2) has no way to say. */
// eslint-disable-next-line no-control-regex
const UNSAYABLE = /[\0-\x08\x0B\x0C\x0E-\x1F\uFFFE\uFFFF]|\p{Cs}/gu;

/** A document with this root; `doctype` is put before it as it is. */
export function writeXml(root: Element, doctype: string): string {
  const builder = new XMLBuilder({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: PREFIX,
    format: true,
    indentBy: ' ',
    suppressEmptyNode: true,
  });
  const body = builder.build([toOrdered(root)]).replace(UNSAYABLE, '');
  return `<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n${doctype}${body.trimStart()}\n`;
}

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/** The five of XML itself, and characters by number; what a document declares stays as it stands. */
function decodeEntities(text: string): string {
  return text.replace(
    /&(?:#(\d{1,7})|#x([\da-f]{1,6})|(amp|lt|gt|quot|apos));/gi,
    (whole: string, dec?: string, hex?: string, name?: string) => {
      if (name) return ENTITIES[name.toLowerCase()];
      const code = dec ? Number(dec) : parseInt(hex ?? '', 16);
      return code <= 0x10ffff ? String.fromCodePoint(code) : whole;
    },
  );
}

/** What `fast-xml-validator` throws. */
type XmlProblem = Error & { readonly line?: number; readonly col?: number };
/** A message may list every open element. */
const LONGEST_MESSAGE = 120;

function requireXml(text: string): void {
  try {
    SyntaxValidator.validate(text, { allowBooleanAttributes: true });
  } catch (cause) {
    const { line = 1, col = 1, message } = cause as XmlProblem;
    const words = message.slice(0, LONGEST_MESSAGE).replace(/\.$/, '');
    throw new RangeError(`line ${line}, column ${col}: ${words}`, { cause });
  }
}

/** Throws a RangeError that names line and column of what is no XML. */
export function readXml(text: string): Element {
  requireXml(text);
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: PREFIX,
    parseTagValue: false,
    parseAttributeValue: false,
    entityDecoder: {
      decode: decodeEntities,
      setExternalEntities: () => undefined,
      addInputEntities: () => undefined,
      reset: () => undefined,
      setXmlVersion: () => undefined,
    },
    ignoreDeclaration: true,
    ignorePiTags: true,
  });
  const nodes = ((): readonly Ordered[] => {
    try {
      return parser.parse(text) as readonly Ordered[];
    } catch (cause) {
      // External entities, and what is nested beyond all reason.
      throw new RangeError(`line 1: ${(cause as Error).message.slice(0, LONGEST_MESSAGE)}`, {
        cause,
      });
    }
  })().map(fromOrdered);
  const root = nodes.find((node) => typeof node !== 'string');
  if (typeof root !== 'object') throw new RangeError('line 1: there is no element');
  return root;
}

export function childrenOf({ children }: Element, name: string): Element[] {
  return children.filter((child): child is Element => typeof child === 'object' && child.name === name);
}

/** The first that is found on this way down; null where there is none. */
export function childOf(parent: Element | null, ...path: readonly string[]): Element | null {
  return path.reduce<Element | null>((at, name) => (at ? (childrenOf(at, name)[0] ?? null) : null), parent);
}

/** All of an element's text, trimmed; '' where there is none. */
export function textOf(node: Element | null): string {
  const text = (n: Element | string): string => (typeof n === 'string' ? n : n.children.map(text).join(''));
  return node ? text(node).trim() : '';
}
