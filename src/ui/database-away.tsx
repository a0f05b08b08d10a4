'use client';
/** Stands in the place of a page while the server has no database; the page comes by itself when it is back. */
import { Box } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { OutOfReach } from './kit';

/** Milliseconds between tries. */
const AGAIN = 3000;

export function DatabaseAway() {
  const router = useRouter();
  useEffect(() => {
    const timer = setInterval(() => router.refresh(), AGAIN);
    return () => clearInterval(timer);
  }, [router]);
  return (
    <Box as="main" px="16px" py="14px" maxW="1000px">
      <OutOfReach
        what="This page cannot be shown"
        missing="the database"
        onAgain={() => router.refresh()}
      />
      <Box color="soft" mt="8px">
        Nothing that was saved is lost. The page comes by itself when the database is back.
      </Box>
    </Box>
  );
}
