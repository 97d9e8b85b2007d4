/** Documents of older versions, brought up step by step to the present one. Their shape is not trusted: the schema decides afterwards. */
import * as z from 'zod';

type Json = Readonly<Record<string, unknown>>;
export type Upgrades = Readonly<Record<string, (older: Json) => Json>>;

const object = z.record(z.string(), z.unknown());
const list = z.array(object);

/** Fields under other names; what is not there stays away. */
function renamed(older: Json, names: Readonly<Record<string, string>>): Json {
  return Object.fromEntries(Object.entries(older).map(([key, value]) => [names[key] ?? key, value]));
}

/** The same for what a schema is given; what is no object is left for the schema to refuse. */
export function renamedIn(names: Readonly<Record<string, string>>): (value: unknown) => unknown {
  return (value) => {
    const read = object.safeParse(value);
    return read.success ? renamed(read.data, names) : value;
  };
}

/** `change` for each member of a list; what is no list of objects is left for the schema to refuse. */
function each(value: unknown, change: (member: Json) => Json): unknown {
  const members = list.safeParse(value);
  return members.success ? members.data.map(change) : value;
}

/** The second guitar is called so, the bar of the bridge no longer like a bar of music, and what is said of a start is confirmed. */
function fromVersion1(older: Json): Json {
  const strum = (s: Json): Json => {
    return 'marks' in s ? { ...s, marks: renamedIn({ bar: 'whammyBar' })(s['marks']) } : s;
  };
  const part = (p: Json): Json => {
    const { strums, guitar2, ...others } = renamed(p, { second: 'guitar2' });
    return {
      ...others,
      strums: each(strums, strum),
      ...(guitar2 !== undefined && { guitar2: each(guitar2, strum) }),
    };
  };
  const riff = (r: Json): Json => {
    const { variations, ...others } = part(r);
    return { ...others, ...(variations !== undefined && { variations: each(variations, part) }) };
  };
  return {
    ...renamed(older, { second: 'guitar2' }),
    schema: 'wild-needle/song@2',
    riffs: each(older['riffs'], riff),
    sections: each(older['sections'], (s) => renamed(s, { startIsSettled: 'startIsConfirmed' })),
  };
}

/** One step per older version, from its name to the next. */
const UPGRADES: Upgrades = { 'wild-needle/song@1': fromVersion1 };

/** As it is when it is of the present version, of an unknown one, or no document at all. */
export function upgradeToNewest(stored: unknown, upgrades = UPGRADES): unknown {
  const read = object.safeParse(stored);
  if (!read.success) return stored;
  let document: Json = read.data;
  for (let step = upgrades[String(document['schema'])]; step; step = upgrades[String(document['schema'])]) {
    document = step(document);
  }
  return document;
}
