import '@fontsource-variable/schibsted-grotesk/index.css';
import '@fontsource-variable/literata/opsz.css';
import '@fontsource-variable/literata/opsz-italic.css';
import '@fontsource-variable/spline-sans-mono/index.css';
import './design/tokens.css';
import './design/parts.css';
import { QueryClientProvider } from '@tanstack/react-query';
import { Tooltip } from 'radix-ui';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { queryClient } from './api/queries.ts';
import { App } from './app.tsx';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Tooltip.Provider>
        {/* A view that is asked for stands at once. As a transition it waits for a quiet moment, which a page that hears of changes
            may not have for seconds, and what is pressed meanwhile is pressed on the view that is left. */}
        <BrowserRouter useTransitions={false}>
          <App />
        </BrowserRouter>
      </Tooltip.Provider>
    </QueryClientProvider>
  </StrictMode>,
);
