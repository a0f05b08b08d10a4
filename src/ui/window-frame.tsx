'use client';
/** The frame of a window: over the page, with the focus kept in it and given back. */
import { Dialog } from '@chakra-ui/react/dialog';
import { Portal } from '@chakra-ui/react/portal';
import type { FrameProps, WindowProps } from './window';

export function WindowFrame({
  open,
  onClose,
  size = 'lg',
  whole = false,
  stays = false,
  titledBy,
  before,
  children,
}: WindowProps & FrameProps) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={({ open: isOpen }) => isOpen || onClose()}
      size={size}
      scrollBehavior={whole ? 'inside' : 'outside'}
      closeOnInteractOutside={!stays}
      finalFocusEl={() => (before?.isConnected === true ? before : null)}
      lazyMount
      unmountOnExit
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content
            aria-labelledby={titledBy}
            bg="sheet"
            color="ink"
            borderRadius="5px"
            {...(whole ? { maxW: '1180px', height: 'calc(100vh - 60px)', my: '30px' } : {})}
          >
            {children}
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
