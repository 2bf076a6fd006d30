import { Component, createElement, lazy, useReducer, type ComponentType, type ReactNode } from 'react';

/**
 * A part of a place that is fetched when it is wanted. Where it cannot be, it says so in its own place, and the rest of
 * the page stands.
 */
export function part<Name extends string, Props extends object>(
  load: () => Promise<Readonly<Record<Name, ComponentType<Props>>>>,
  name: Name,
): ComponentType<Props> {
  const fetched = (): ComponentType<Props> =>
    lazy(async () => ({ default: (await load())[name] })) as unknown as ComponentType<Props>;
  let Fetched = fetched();
  return function Part(props: Props) {
    const [tries, again] = useReducer((n: number) => n + 1, 0);
    return (
      <Standing
        key={tries}
        onAgain={() => {
          Fetched = fetched();
          again();
        }}
      >
        {createElement(Fetched, props)}
      </Standing>
    );
  };
}

/** What breaks within it does not break what is around it. */
class Standing extends Component<{ onAgain: () => void; children: ReactNode }, { broken: boolean }> {
  override state = { broken: false };
  static getDerivedStateFromError(): { broken: boolean } {
    return { broken: true };
  }
  override componentDidMount(): void {
    addEventListener('online', this.again);
  }
  override componentWillUnmount(): void {
    removeEventListener('online', this.again);
  }
  private readonly again = () => {
    if (this.state.broken) this.props.onAgain();
  };
  override render(): ReactNode {
    if (!this.state.broken) return this.props.children;
    return (
      <p className="border-l-4 border-warning bg-base-200 px-3 py-2" role="status">
        This part could not be fetched. The rest of the page goes on.{' '}
        <button type="button" className="link-row underline underline-offset-4" onClick={this.again}>
          Try again
        </button>
      </p>
    );
  }
}
