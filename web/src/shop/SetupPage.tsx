import { shopRoutes } from '@jutbank/contract/shop';
import { useKeptAnswers } from '../base/answers.ts';
import { Wordmark } from '../base/Wordmark.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';

/** First run: name the shop and its owner. */
export default function SetupPage() {
  const answers = useKeptAnswers();
  const form = useContractForm(shopRoutes.setup, {
    empty: { shopName: '', baseCurrency: 'EUR', owner: { name: '', email: '', password: '' } },
    onSent: (session) => answers.set(shopRoutes.session, {}, session),
  });
  const currency = form.field('baseCurrency');
  return (
    <main className="state" style={{ maxWidth: 460, paddingTop: 60 }}>
      <Wordmark />
      <PageTitle style={{ fontSize: 19, margin: '22px 0 4px' }}>A new shop</PageTitle>
      <p className="soft" style={{ marginBottom: 18 }}>
        Nothing is recorded here yet. Name the shop and yourself; you can give others an account later.
      </p>
      <form className="fields" onSubmit={form.onSubmit} noValidate>
        <TextInput
          label="Name of the shop"
          why="Its initials begin your stock numbers."
          autoFocus
          {...form.field('shopName')}
        />
        <TextInput
          label="Currency the books are kept in"
          why="Three letters. It cannot be changed later."
          {...currency}
          onChange={(text) => currency.onChange(text.trim().toUpperCase())}
        />
        <TextInput label="Your name" autoComplete="name" {...form.field('owner.name')} />
        <TextInput label="E-mail" type="email" autoComplete="username" {...form.field('owner.email')} />
        <TextInput
          label="Password"
          why="At least 10 characters."
          type="password"
          autoComplete="new-password"
          {...form.field('owner.password')}
        />
        <Submit form={form} words="Open the shop" />
      </form>
    </main>
  );
}
