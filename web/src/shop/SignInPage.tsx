import { shopRoutes } from '@jutbank/contract/shop';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { Wordmark } from '../base/Wordmark.tsx';

export default function SignInPage() {
  const answers = useKeptAnswers();
  const { register, handleSubmit, formState } = useForm({
    defaultValues: { email: '', password: '', code: '' },
  });
  const [problem, setProblem] = useState<string>();
  const [wantsCode, setWantsCode] = useState(false);
  const submit = handleSubmit(async (body) => {
    try {
      answers.set(shopRoutes.session, {}, await send(shopRoutes.signIn, { body }));
    } catch (error) {
      setWantsCode(wantsCode || (error instanceof ApiProblem && error.code === 'second-factor'));
      setProblem(error instanceof ApiProblem ? error.message : String(error));
    }
  });
  return (
    <main className="state" style={{ paddingTop: 90, maxWidth: 380 }}>
      <Wordmark />
      <h1 style={{ fontSize: 17, margin: '22px 0 14px' }}>Sign in to the shop</h1>
      <form onSubmit={(event) => void submit(event)} noValidate style={{ display: 'grid', gap: 14 }}>
        <TextField
          label="E-mail"
          type="email"
          autoComplete="username"
          autoFocus
          {...register('email', { required: 'Your e-mail address' })}
          error={!!formState.errors.email}
          helperText={formState.errors.email?.message}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          {...register('password', { required: 'Your password' })}
          error={!!formState.errors.password}
          helperText={formState.errors.password?.message}
        />
        {wantsCode && (
          <TextField
            label="Code of your authenticator"
            autoComplete="one-time-code"
            autoFocus
            slotProps={{ htmlInput: { inputMode: 'numeric', className: 'num' } }}
            {...register('code')}
          />
        )}
        {problem !== undefined && (
          <p className="problem" role="alert">
            {problem}
          </p>
        )}
        <Button type="submit" variant="contained" disabled={formState.isSubmitting}>
          Sign in
        </Button>
      </form>
    </main>
  );
}
