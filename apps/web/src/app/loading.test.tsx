import { act, render, screen } from '@testing-library/react';
import { Suspense } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { page, tryAgain } from './loading';

const drawn = (key: string, element: React.ReactNode) => (
  <ErrorBoundary resetKeys={[key]} onReset={tryAgain} fallback={<p>not drawn</p>}>
    <Suspense fallback={<p>loading</p>}>{element}</Suspense>
  </ErrorBoundary>
);

describe('a page whose code could not be loaded', () => {
  it('is tried once while it stands, and once more when it is opened again', async () => {
    const silent = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    let tries = 0;
    const element = page(() => {
      tries += 1;
      return tries === 1
        ? Promise.reject(new Error('offline'))
        : Promise.resolve({ default: () => <p>the page</p> });
    });
    const { rerender } = render(drawn('/sort', element));
    expect(await screen.findByText('not drawn')).toBeTruthy();
    expect(tries).toBe(1);
    await act(async () => rerender(drawn('/', <p>another</p>)));
    await act(async () => rerender(drawn('/sort', element)));
    expect(await screen.findByText('the page')).toBeTruthy();
    expect(tries).toBe(2);
    silent.mockRestore();
  });
});
