import { GlobalStyles, ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { RouterProvider } from 'react-router';
import { ApiProblem } from '../base/api.ts';
import { ModeContext, storedMode } from '../base/mode.ts';
import { router } from './routes.tsx';
import { themeFor, variablesOf, type Mode } from '../base/theme.ts';

const queries = new QueryClient({
  defaultOptions: {
    // whether there is a connection is found out by asking (base/api.ts), not by what the browser believes
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      staleTime: 10_000,
      retry: (count, error) =>
        count < 2 && !(error instanceof ApiProblem && (error.status === 0 || error.status >= 400)),
    },
  },
});

export function App() {
  const [mode, setMode] = useState<Mode>(storedMode);
  const theme = useMemo(() => themeFor(mode), [mode]);
  useEffect(() => {
    document.documentElement.dataset.mode = mode;
    localStorage.setItem('jutbank.mode', mode);
  }, [mode]);
  const value = useMemo(() => ({ mode, setMode }), [mode]);
  return (
    <ModeContext value={value}>
      <ThemeProvider theme={theme}>
        <GlobalStyles styles={{ ':root': variablesOf(mode) }} />
        <QueryClientProvider client={queries}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </ThemeProvider>
    </ModeContext>
  );
}
