/** The shop, its people, signing in. */
import { z } from 'zod';
import { answers, currency, required, route, text } from '../http/index.ts';

export const ROLES = ['owner', 'appraiser', 'clerk', 'reader'] as const;
export type Role = (typeof ROLES)[number];

const email = z.email('this is not an e-mail address').max(200);
const password = z.string().min(10, 'at least 10 characters').max(200);
export const setupBody = z.object({
  shopName: required(160, 'What is the shop called?'),
  baseCurrency: currency,
  owner: z.object({ name: required(160, 'Who are you?'), email, password }),
});
export const sessionBody = z.object({ email: z.string().max(200), password: z.string().max(200) });
export const personBody = z.object({
  name: required(160, 'Whose account is it?'),
  email,
  password,
  role: z.enum(ROLES),
});

export interface Person {
  id: string;
  name: string;
  email: string;
  role: Role;
}
export interface Shop {
  name: string;
  baseCurrency: string;
  stockScheme: string;
  channelName: string;
  demo: boolean;
}
export interface SessionAnswer {
  person: Person;
  shop: Shop;
}
export const shopBody = z.object({
  name: required(160),
  stockScheme: text(40).regex(/\{0+\}/, 'the scheme needs a place for the number, such as HQ-{0000}'),
});

export interface SearchHit {
  kind: 'piece' | 'maker' | 'pattern' | 'variant' | 'mark';
  id: string;
  label: string;
  hint: string;
}

export const shopRoutes = {
  health: route({
    method: 'get',
    path: '/health',
    room: 'shop',
    access: 'public',
    summary: 'Whether server and database answer',
    answer: answers<{ status: 'ok' | 'failing'; version: string; empty: boolean }>('ok, or 503'),
  }),
  setup: route({
    method: 'post',
    path: '/setup',
    room: 'shop',
    access: 'public',
    summary: 'First run: name the shop and its owner',
    secret: true,
    body: setupBody,
    answer: answers<SessionAnswer>('Signed in'),
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
    answer: answers<SessionAnswer>('Signed in'),
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
    answer: answers<SessionAnswer>('Person and shop'),
  }),
  people: route({
    method: 'get',
    path: '/people',
    room: 'shop',
    access: 'read',
    summary: 'Who works here',
    answer: answers<{ items: Person[] }>('People'),
  }),
  addPerson: route({
    method: 'post',
    path: '/people',
    room: 'shop',
    access: 'own',
    summary: 'Give somebody an account',
    secret: true,
    body: personBody,
    answer: answers<Person>('The person'),
    status: 201,
  }),
  putShop: route({
    method: 'put',
    path: '/shop',
    room: 'shop',
    access: 'own',
    summary: 'Change the shop’s settings',
    body: shopBody,
    answer: answers<Shop>('The shop'),
  }),
  search: route({
    method: 'get',
    path: '/search',
    room: 'shop',
    access: 'read',
    summary: 'Find anything',
    query: z.object({ q: z.string().trim().min(1).max(100) }),
    answer: answers<{ items: SearchHit[] }>('Hits'),
  }),
};
