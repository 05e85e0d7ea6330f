import { shopRoutes, setupBody } from '@jutbank/contract/shop';
import { zodResolver } from '@hookform/resolvers/zod';
import { Button, TextField } from '@mui/material';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { Wordmark } from '../base/Wordmark.tsx';

/** First run: name the shop and its owner. */
export default function SetupPage() {
  const answers = useKeptAnswers();
  const [problem, setProblem] = useState<string>();
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(setupBody),
    defaultValues: { shopName: '', baseCurrency: 'EUR', owner: { name: '', email: '', password: '' } },
  });
  const { errors } = formState;
  const submit = handleSubmit(async (body) => {
    try {
      answers.set(shopRoutes.session, {}, await send(shopRoutes.setup, { body }));
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.message : String(error));
    }
  });
  return (
    <main className="state" style={{ maxWidth: 460, paddingTop: 60 }}>
      <Wordmark />
      <h1 style={{ fontSize: 19, margin: '22px 0 4px' }}>A new shop</h1>
      <p className="soft" style={{ marginBottom: 18 }}>
        Nothing is recorded here yet. Name the shop and yourself; you can give others an account later.
      </p>
      <form onSubmit={(event) => void submit(event)} noValidate style={{ display: 'grid', gap: 14 }}>
        <TextField
          label="Name of the shop"
          autoFocus
          {...register('shopName')}
          error={!!errors.shopName}
          helperText={errors.shopName?.message ?? 'Its initials begin your stock numbers.'}
        />
        <TextField
          label="Currency the books are kept in"
          {...register('baseCurrency', { setValueAs: (v: string) => v.trim().toUpperCase() })}
          error={!!errors.baseCurrency}
          helperText={errors.baseCurrency?.message ?? 'Three letters. It cannot be changed later.'}
        />
        <TextField
          label="Your name"
          autoComplete="name"
          {...register('owner.name')}
          error={!!errors.owner?.name}
          helperText={errors.owner?.name?.message}
        />
        <TextField
          label="E-mail"
          type="email"
          autoComplete="username"
          {...register('owner.email')}
          error={!!errors.owner?.email}
          helperText={errors.owner?.email?.message}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="new-password"
          {...register('owner.password')}
          error={!!errors.owner?.password}
          helperText={errors.owner?.password?.message ?? 'At least 10 characters.'}
        />
        {problem !== undefined && (
          <p className="problem" role="alert">
            {problem}
          </p>
        )}
        <Button type="submit" variant="contained" disabled={formState.isSubmitting}>
          Open the shop
        </Button>
      </form>
    </main>
  );
}
