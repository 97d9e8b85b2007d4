/** XML as trees of elements: written by `fast-xml-builder`, read by `saxes`. */
import XMLBuilder from 'fast-xml-builder';
import { SaxesParser } from 'saxes';

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

/** Nested deeper, it is no score: the deepest element of one is the tenth. */
const DEEPEST = 100;

/** An element while its children are still read. */
interface OpenElement extends Element {
  readonly children: (Element | string)[];
}

/** Throws a RangeError that names line and column of what is no XML. What a document declares of its own is neither expanded nor fetched. */
export function readXml(text: string): Element {
  const parser = new SaxesParser({ position: true });
  const open: OpenElement[] = [{ name: '', attributes: {}, children: [] }];
  const top = (): OpenElement => open[open.length - 1];
  const fail = (words: string): never => {
    throw new RangeError(`line ${parser.line}, column ${parser.column + 1}: ${words}`);
  };
  // 'file:1:7: disallowed character.'
  parser.on('error', ({ message }) => fail(message.replace(/^[\w.-]*:?\d+:\d+: /, '').replace(/\.$/, '')));
  parser.on('opentag', ({ name, attributes }) => {
    if (open.length > DEEPEST) fail('elements stand in each other too deep for a score');
    const element: OpenElement = {
      name,
      attributes: { ...(attributes as Record<string, string>) },
      children: [],
    };
    top().children.push(element);
    open.push(element);
  });
  parser.on('closetag', () => open.pop());
  const say = (words: string): void => {
    if (words.trim() !== '') top().children.push(words);
  };
  parser.on('text', say);
  parser.on('cdata', say);
  parser.write(text).close();
  const root = open[0].children.find((child) => typeof child === 'object');
  return root ?? fail('there is no element');
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
