import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { issueCredential, newSecretKey } from '@jutbank/core/certificate';
import type { PublicCertificate } from '@jutbank/contract/sale';
import { serve, show, type Answers } from '../testing/screen.tsx';
import CertificatePage from './CertificatePage.tsx';

afterEach(cleanup);

const secret = newSecretKey();
const file = issueCredential(
  {
    id: 'http://shop/c/ABC',
    shop: 'Hollin Quay',
    issuedAt: '2026-11-02T10:00:00Z',
    subject: { claim: 'This is it.' },
  },
  secret,
);
const certificate: PublicCertificate = {
  code: 'ABCDEFGHJKMN',
  shop: 'Hollin Quay',
  issuedAt: '2026-11-02T10:00:00Z',
  stockNumber: 'HQ-0001',
  claim: 'This is Harbour jack.',
  made: '1936',
  grade: 'excellent',
  inspected: true,
  whole: true,
  faultless: false,
  findings: ['Scales: crack, light'],
  provenance: null,
  notProvedBecause: [],
  notExamined: ['Not examined, lock: pivot'],
  fingerprint: 'f'.repeat(64),
  intact: true,
  withdrawn: null,
  signed: true,
  issuer: file.issuer.id,
};
const open = (more: Partial<PublicCertificate> = {}, answers: Answers = {}) => {
  serve({
    'GET /certificates/ABCDEFGHJKMN': () => ({ body: { ...certificate, ...more } }),
    'GET /certificates/ABCDEFGHJKMN/certificate.json': () => ({ body: file }),
    ...answers,
  });
  show(
    <Routes>
      <Route path="c/:code" element={<CertificatePage />} />
    </Routes>,
    { at: '/c/ABCDEFGHJKMN' },
  );
};

describe('anybody who has a certificate’s code', () => {
  test('sees what it says, that it stands, and that the shop signed it', async () => {
    open();
    await screen.findByText('It is signed by the shop, and nothing in it was changed.');
    screen.getByText('What stands here is as it was issued.');
    screen.getByText('– Scales: crack, light');
    screen.getByText('– Not examined, lock: pivot');
    expect(screen.queryByText(/no fault was found/)).toBeNull();
  });
  test('is told first that it was withdrawn, and why', async () => {
    open({ withdrawn: { on: '2026-11-20', because: 'The piece came back to the shop.' } });
    await screen.findByText('This certificate was withdrawn on 20 Nov 2026.');
    screen.getByText('The piece came back to the shop.');
  });
  test('is told when the record was rewritten, or the file signed by somebody else', async () => {
    open({ intact: false, issuer: 'did:key:zSomebody' });
    await screen.findByText(/does not match its fingerprint/);
    await screen.findByText('It is whole, but signed with another key than this shop’s.');
  });
  test('may hold a file against it: a changed one is found', async () => {
    open();
    const chooser = await screen.findByLabelText<HTMLInputElement>('A certificate as a file');
    const changed = JSON.stringify(file).replace('This is it.', 'This is gold.');
    await userEvent.upload(chooser, new File([changed], 'certificate.json', { type: 'application/json' }));
    await screen.findByText(/something in it was changed/);
    await userEvent.upload(chooser, new File(['no JSON'], 'x.json', { type: 'application/json' }));
    await screen.findByText('This file is no certificate.');
  });
});
