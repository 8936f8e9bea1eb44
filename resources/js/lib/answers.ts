import * as v from 'valibot';

/** What the server answers about people, productions and itself: checked where it comes in, typed from there on. */

export const Person = v.object({ id: v.number(), name: v.string(), email: v.string() });
export type Person = v.InferOutput<typeof Person>;
export const Me = v.object({ person: v.nullable(Person) });
export const SignedIn = v.object({ person: Person });

export const Health = v.object({ taken: v.record(v.string(), v.boolean()), box: v.boolean() });

const Pair = v.tuple([v.number(), v.number()]);

export const Production = v.object({
    id: v.number(),
    name: v.string(),
    role: v.string(),
    rate: Pair,
    size: Pair,
    scenes: v.array(v.object({ id: v.number(), name: v.string(), mood: v.string(), changed: v.string() })),
});
export type Production = v.InferOutput<typeof Production>;
export type Measured = Omit<Production, 'scenes'>;
export const Productions = v.object({ productions: v.array(Production) });
export const MadeProduction = v.object({ scene: v.number() });
export const MadeScene = v.object({ id: v.number() });

export const Member = v.object({ id: v.number(), name: v.string(), email: v.nullable(v.string()), role: v.string(), you: v.boolean() });
export type Member = v.InferOutput<typeof Member>;
export const Asked = v.object({ id: v.number(), email: v.string(), role: v.string(), ends: v.string(), over: v.boolean() });
export type Asked = v.InferOutput<typeof Asked>;
export const Members = v.object({ members: v.array(Member), invitations: v.array(Asked), owner: v.boolean() });
export const Invited = v.object({ link: v.string(), mailed: v.boolean() });
export const Invitation = v.object({ production: v.string(), role: v.picklist(['editor', 'viewer']), email: v.string(), ends: v.string() });
export type Invitation = v.InferOutput<typeof Invitation>;
export const Joined = v.object({ scene: v.nullable(v.number()) });

export const Message = v.object({ message: v.string() });
