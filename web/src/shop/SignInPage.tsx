import { shopRoutes } from '@jutbank/contract/shop';
import { useKeptAnswers } from '../base/answers.ts';
import { Wordmark } from '../base/Wordmark.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';

export default function SignInPage() {
  const answers = useKeptAnswers();
  const form = useContractForm(shopRoutes.signIn, {
    empty: { email: '', password: '', code: '' },
    onSent: (session) => answers.set(shopRoutes.session, {}, session),
  });
  // once it was asked for it stays, whatever is refused next
  const wantsCode = form.refusal?.code === 'second-factor' || form.values.code !== '';
  return (
    <main className="state" style={{ paddingTop: 90, maxWidth: 380 }}>
      <Wordmark />
      <PageTitle style={{ fontSize: 17, margin: '22px 0 14px' }}>Sign in to the shop</PageTitle>
      <form className="fields" onSubmit={form.onSubmit} noValidate>
        <TextInput label="E-mail" type="email" autoComplete="username" autoFocus {...form.field('email')} />
        <TextInput
          label="Password"
          type="password"
          autoComplete="current-password"
          {...form.field('password')}
        />
        {wantsCode && (
          <TextInput
            label="Code of your authenticator"
            autoComplete="one-time-code"
            inputMode="numeric"
            autoFocus
            {...form.field('code')}
          />
        )}
        <Submit form={form} words="Sign in" />
      </form>
    </main>
  );
}
