/**
 * How the few Chakra components that are used look. Its own theme describes seventy, with tokens for all of them, which
 * every page would load: more than half of what Chakra weighs.
 */
import { defineSlotRecipe } from '@chakra-ui/react';

const dialog = defineSlotRecipe({
  slots: ['backdrop', 'positioner', 'content', 'header', 'body', 'footer', 'title'],
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
      borderRadius: '8px',
      marginBlock: '56px',
      marginInline: 'auto',
      boxShadow: 'raised',
    },
    header: { display: 'flex', gap: '8px', flex: 0, padding: '20px 24px 12px' },
    body: { flex: 1, padding: '6px 24px 24px' },
    footer: {
      display: 'flex',
      alignItems: 'center',
      justifyContent: 'flex-end',
      gap: '10px',
      padding: '6px 24px 16px',
    },
    title: { fontWeight: 640 },
  },
  variants: {
    scrollBehavior: {
      inside: {
        positioner: { overflow: 'hidden' },
        content: { maxHeight: 'calc(100% - 112px)' },
        body: { overflow: 'auto' },
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
