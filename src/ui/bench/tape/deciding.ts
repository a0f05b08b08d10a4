/** What answers questions about the form. Loaded apart, in idle time: most visits ask nothing. */
export { decide } from '@/core/debugging/decide';
export { groundOver } from '@/core/debugging/ground';
export { leftOut } from '@/core/debugging/left-out';
export { otherLines, whyNot } from '@/core/debugging/why-not';
