// A machine that stands still at the wrong moment fails one test in some thousands; what fails is tried once more, and
// the run tells which tests that were. At once: the tests after it build on it.
jest.retryTimes(1, { logErrorsBeforeRetry: true, retryImmediately: true });
