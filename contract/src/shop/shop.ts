/** The shop, its people, signing in. */
import { z } from 'zod';
import { answers, byId, currency, required, route, SECRETS, text, ulid, type Access } from '../http/index.ts';

export const ROLES = ['owner', 'appraiser', 'clerk', 'reader'] as const;
export type Role = (typeof ROLES)[number];

/** The one place that says who may do what. */
const MAY: Readonly<Record<Role, readonly Access[]>> = {
  owner: ['public', 'read', 'work', 'appraise', 'own'],
  appraiser: ['public', 'read', 'work', 'appraise'],
  clerk: ['public', 'read', 'work'],
  reader: ['public', 'read'],
};
export const accessOf = (role: Role): readonly Access[] => MAY[role];

const email = z.email('this is not an e-mail address').max(200);
const password = z.string().min(10, 'at least 10 characters').max(200);
/** Six digits of an authenticator. */
const code = z
  .string()
  .trim()
  .regex(/^\d{6}$/, 'six digits, as your authenticator shows them');
export const setupBody = z.object({
  shopName: required(160, 'What is the shop called?'),
  baseCurrency: currency,
  owner: z.object({ name: required(160, 'Who are you?'), email, password }),
});
export const sessionBody = z.object({
  email: z.string().min(1, 'Your e-mail address').max(200),
  password: z.string().min(1, 'Your password').max(200),
  /** of the second factor, where the person has one */
  code: z.string().max(10).nullish(),
});
export const personBody = z.object({
  name: required(160, 'Whose account is it?'),
  email,
  password,
  role: z.enum(ROLES),
});

export const person = z
  .object({
    id: z.string(),
    name: z.string(),
    email: z.string(),
    role: z.enum(ROLES),
  })
  .meta({ id: 'Person' });
export type Person = z.infer<typeof person>;
export const personOnList = person
  .extend({
    /** signs in with an authenticator as well */
    secondFactor: z.boolean(),
    sessions: z.number(),
  })
  .meta({ id: 'PersonOnList' });
export type PersonOnList = z.infer<typeof personOnList>;
export const sessionOnList = z
  .object({
    id: z.string(),
    begunAt: z.string(),
    seenAt: z.string(),
    address: z.string(),
    agent: z.string(),
    /** the one that asks */
    own: z.boolean(),
  })
  .meta({ id: 'SessionOnList' });
export type SessionOnList = z.infer<typeof sessionOnList>;
export const shop = z
  .object({
    name: z.string(),
    baseCurrency: z.string(),
    stockScheme: z.string(),
    channelName: z.string(),
    demo: z.boolean(),
    /** what readers are told */
    readerSees: z.array(z.enum(SECRETS)),
    /** 12/09/2026 is in September */
    dayFirst: z.boolean(),
  })
  .meta({ id: 'Shop' });
export type Shop = z.infer<typeof shop>;
export const sessionAnswer = z
  .object({
    person: person,
    shop: shop,
  })
  .meta({ id: 'SessionAnswer' });
export type SessionAnswer = z.infer<typeof sessionAnswer>;
export const shopBody = z.object({
  name: required(160),
  readerSees: z.array(z.enum(SECRETS)).max(SECRETS.length).optional(),
  dayFirst: z.boolean().optional(),
  stockScheme: text(40).regex(/\{0+\}/, 'the scheme needs a place for the number, such as HQ-{0000}'),
});

export const searchHit = z
  .object({
    kind: z.enum([
      'piece',
      'sale',
      'contact',
      'lot',
      'document',
      'finding',
      'note',
      'treatment',
      'question',
      'number',
      'maker',
      'pattern',
      'variant',
      'mark',
    ]),
    /** of what it is, or of the piece it stands with */
    id: z.string(),
    label: z.string(),
    hint: z.string(),
  })
  .meta({ id: 'SearchHit' });
export type SearchHit = z.infer<typeof searchHit>;

export const shopRoutes = {
  health: route({
    method: 'get',
    path: '/health',
    room: 'shop',
    access: 'public',
    summary: 'Whether server and database answer',
    answer: answers(
      z.object({
        status: z.enum(['ok', 'failing']),
        version: z.string(),
        empty: z.boolean(),
      }),
      'ok, or 503',
    ),
  }),
  setup: route({
    method: 'post',
    path: '/setup',
    room: 'shop',
    access: 'public',
    summary: 'First run: name the shop and its owner',
    secret: true,
    body: setupBody,
    answer: answers(sessionAnswer, 'Signed in'),
    status: 201,
  }),
  signIn: route({
    method: 'post',
    path: '/session',
    room: 'shop',
    access: 'public',
    summary: 'Sign in',
    secret: true,
    body: sessionBody,
    answer: answers(sessionAnswer, 'Signed in'),
  }),
  signOut: route({
    method: 'delete',
    path: '/session',
    room: 'shop',
    access: 'public',
    summary: 'Sign out',
    status: 204,
  }),
  session: route({
    method: 'get',
    path: '/session',
    room: 'shop',
    access: 'read',
    summary: 'Who is signed in',
    answer: answers(sessionAnswer, 'Person and shop'),
  }),
  people: route({
    method: 'get',
    path: '/people',
    room: 'shop',
    access: 'read',
    summary: 'Who works here',
    answer: answers(
      z.object({
        items: z.array(personOnList),
      }),
      'People',
    ),
  }),
  addPerson: route({
    method: 'post',
    path: '/people',
    room: 'shop',
    access: 'own',
    summary: 'Give somebody an account',
    secret: true,
    body: personBody,
    answer: answers(person, 'The person'),
    status: 201,
  }),
  changePerson: route({
    method: 'put',
    path: '/people/:id',
    room: 'shop',
    access: 'own',
    summary: 'Change somebody’s name or role; another role ends their sessions',
    params: byId,
    body: z.object({ name: required(160, 'Whose account is it?'), role: z.enum(ROLES) }),
    answer: answers(person, 'The person'),
  }),
  removePerson: route({
    method: 'delete',
    path: '/people/:id',
    room: 'shop',
    access: 'own',
    summary: 'Take somebody’s account away; their name stays on what they did',
    params: byId,
    answer: answers(
      z.object({
        removed: z.string(),
      }),
      'Who',
    ),
  }),
  resetPassword: route({
    method: 'put',
    path: '/people/:id/password',
    room: 'shop',
    access: 'own',
    summary: 'Give somebody a new password; their sessions end',
    secret: true,
    params: byId,
    body: z.object({ password }),
    answer: answers(
      z.object({
        ended: z.number(),
      }),
      'Sessions that ended',
    ),
  }),
  endSessionsOf: route({
    method: 'delete',
    path: '/people/:id/sessions',
    room: 'shop',
    access: 'own',
    summary: 'End all sessions of somebody',
    params: byId,
    answer: answers(
      z.object({
        ended: z.number(),
      }),
      'Sessions that ended',
    ),
  }),
  dropSecondFactor: route({
    method: 'delete',
    path: '/people/:id/second-factor',
    room: 'shop',
    access: 'own',
    summary: 'Take somebody’s second factor away, where the authenticator is lost; their sessions end',
    params: byId,
    answer: answers(
      z.object({
        ended: z.number(),
      }),
      'Sessions that ended',
    ),
  }),
  changePassword: route({
    method: 'put',
    path: '/session/password',
    room: 'shop',
    access: 'read',
    summary: 'Change one’s own password; all other sessions end',
    secret: true,
    body: z.object({ current: z.string().max(200), password }),
    answer: answers(
      z.object({
        ended: z.number(),
      }),
      'Sessions that ended',
    ),
  }),
  sessions: route({
    method: 'get',
    path: '/sessions',
    room: 'shop',
    access: 'read',
    summary: 'Where one is signed in',
    answer: answers(
      z.object({
        items: z.array(sessionOnList),
      }),
      'Sessions',
    ),
  }),
  endSession: route({
    method: 'delete',
    path: '/sessions/:id',
    room: 'shop',
    access: 'read',
    summary: 'End one of one’s own sessions',
    params: z.object({ id: ulid.or(z.string().regex(/^[0-9A-F]{26}$/)) }),
    answer: answers(
      z.object({
        ended: z.number(),
      }),
      'Sessions that ended',
    ),
  }),
  beginSecondFactor: route({
    method: 'post',
    path: '/session/second-factor',
    room: 'shop',
    access: 'read',
    summary: 'A secret for an authenticator; it counts once a code of it was told',
    secret: true,
    answer: answers(
      z.object({
        secret: z.string(),
        uri: z.string(),
        qr: z.string(),
      }),
      'Secret, address, and the address as a picture',
    ),
  }),
  takeSecondFactor: route({
    method: 'put',
    path: '/session/second-factor',
    room: 'shop',
    access: 'read',
    summary: 'From now on a code of that authenticator is asked for at sign-in',
    secret: true,
    body: z.object({ code }),
    answer: answers(
      z.object({
        secondFactor: z.boolean(),
      }),
      'Whether it is asked for',
    ),
  }),
  leaveSecondFactor: route({
    method: 'put',
    path: '/session/second-factor/none',
    room: 'shop',
    access: 'read',
    summary: 'No code is asked for any more; the password is told once more',
    secret: true,
    body: z.object({ password: z.string().max(200) }),
    answer: answers(
      z.object({
        secondFactor: z.boolean(),
      }),
      'Whether it is asked for',
    ),
  }),
  putShop: route({
    method: 'put',
    path: '/shop',
    room: 'shop',
    access: 'own',
    summary: 'Change the shop’s settings',
    body: shopBody,
    answer: answers(shop, 'The shop'),
  }),
  search: route({
    method: 'get',
    path: '/search',
    room: 'shop',
    access: 'read',
    summary: 'Find anything',
    query: z.object({ q: z.string().trim().min(1).max(100) }),
    answer: answers(
      z.object({
        items: z.array(searchHit),
      }),
      'Hits',
    ),
  }),
};
