export {
  type Contact,
  type ContactBody,
  contact,
  contactBody,
  contactRoutes,
  type Erasure,
} from './contacts.ts';
