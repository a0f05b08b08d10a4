/** All faults of the corpus. Every second one of each group is kept aside while the search is tuned. */
import type { Fault } from './fault';
import { faultsInSource } from './faults-in-source';
import { faultsOfOrder } from './faults-of-order';
import { faultsOnPages } from './faults-on-pages';
import { faultsOfValues } from './faults-of-values';
import { faultsOnScreen } from './faults-on-screen';

export const faults: readonly Fault[] = [
  ...faultsOnScreen,
  ...faultsOfValues,
  ...faultsOfOrder,
  ...faultsInSource,
  ...faultsOnPages,
];
