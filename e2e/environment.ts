import type { Circus } from '@jest/types';
import { TestEnvironment } from 'jest-environment-node';

/**
 * Where interface tests run: those of a file build on one another, so what follows one that failed twice is not tried,
 * each with its own time-outs, but fails at once.
 */
export default class InterfaceEnvironment extends TestEnvironment {
  private failed: string | null = null;

  handleTestEvent(event: Circus.Event): void {
    if (event.name === 'test_done' && event.test.errors.length > 0 && event.test.invocations > 1)
      this.failed ??= event.test.name;
    if (event.name === 'test_start' && this.failed !== null) event.test.fn = this.notRun(this.failed);
  }

  private notRun(failed: string): Circus.TestFn {
    return () => {
      throw new Error(`Not run: it builds on what "${failed}" does, which failed.`);
    };
  }
}
