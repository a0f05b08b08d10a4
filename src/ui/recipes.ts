/**
 * How the few Chakra components that are used look. Its own theme describes seventy, with tokens for all of them, which
 * every page would load: more than half of what Chakra weighs.
 */
import { defineSlotRecipe } from '@chakra-ui/react';

const dialog = defineSlotRecipe({
  slots: ['backdrop', 'positioner', 'content'],
  base: {
    backdrop: { background: 'rgb(20 22 24 / 0.5)', position: 'fixed', inset: 0, zIndex: 1500 },
    positioner: {
      display: 'flex',
      alignItems: 'flex-start',
      justifyContent: 'center',
      position: 'fixed',
      inset: 0,
      zIndex: 1500,
      overscrollBehaviorY: 'none',
    },
    content: {
      display: 'flex',
      flexDirection: 'column',
      position: 'relative',
      width: '100%',
      outline: 0,
      fontSize: '0.875rem',
      lineHeight: '1.25rem',
      borderRadius: '8px',
      marginBlock: '56px',
      marginInline: 'auto',
      boxShadow: 'raised',
    },
  },
  variants: {
    scrollBehavior: {
      inside: {
        positioner: { overflow: 'hidden' },
        content: { maxHeight: 'calc(100% - 112px)' },
      },
      outside: { positioner: { overflow: 'auto', pointerEvents: 'auto' } },
    },
    size: {
      sm: { content: { maxWidth: '28rem' } },
      md: { content: { maxWidth: '32rem' } },
      lg: { content: { maxWidth: '42rem' } },
      xl: { content: { maxWidth: '56rem' } },
    },
  },
  defaultVariants: { size: 'md', scrollBehavior: 'outside' },
});

const menu = defineSlotRecipe({
  slots: ['content', 'item'],
  base: {
    content: {
      outline: 0,
      background: 'sheet',
      color: 'ink',
      boxShadow: 'raised',
      maxHeight: 'var(--available-height)',
      minWidth: '8rem',
      zIndex: 1500,
      borderRadius: '6px',
      overflowY: 'auto',
      padding: '5px',
    },
    item: {
      display: 'flex',
      alignItems: 'center',
      width: '100%',
      gap: '8px',
      padding: '5px 8px',
      borderRadius: '4px',
      cursor: 'pointer',
      outline: 0,
      userSelect: 'none',
      _highlighted: { background: 'actGround' },
      _disabled: { opacity: 0.5, cursor: 'default' },
    },
  },
});

export const slotRecipes = { dialog, menu };
