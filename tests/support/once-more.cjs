// For tests that failed beside others and are tried by themselves: some hold a time of the clock, which others may take from them even then.
jest.retryTimes(2, { logErrorsBeforeRetry: true, waitBeforeRetry: 1000 });
