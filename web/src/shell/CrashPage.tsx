import { Box, Button, Heading, Text } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Link, useRouteError } from 'react-router';

function Page({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box
      as="main"
      maxW="560px"
      mx="auto"
      mt="16vh"
      p="24px"
      bg="card"
      borderWidth="1px"
      borderColor="line"
      rounded="10px"
    >
      <Heading as="h1" fontFamily="heading" fontSize="22px" mb="8px">
        {title}
      </Heading>
      {children}
      <Text mt="14px" textDecoration="underline">
        <Link to="/">To the shelf</Link>
      </Text>
    </Box>
  );
}

/** How browsers say that code could not be fetched: Chromium and Firefox, then Safari. */
const NOT_FETCHED = /dynamically imported module|Importing a module script failed/i;

/** Shown when a screen fails or cannot be fetched: what happened, that the jobs are safe, and the screen again. */
export function CrashPage() {
  const error = useRouteError();
  const message = error instanceof Error ? error.message : String(error);
  const isAway = NOT_FETCHED.test(message);
  return (
    <Page title={isAway ? 'This screen could not be fetched' : 'This screen has failed'}>
      <Text>
        {isAway ? 'The server does not answer, and this browser has not kept the screen yet. ' : ''}
        Your jobs are kept in this browser as they were. Try again, or go back to the shelf.
      </Text>
      {!isAway && (
        <Text mt="8px" fontFamily="mono" fontSize="12px" color="soft">
          {message}
        </Text>
      )}
      {/* What could not be fetched once is not asked for again by the same page. */}
      <Button mt="12px" onClick={() => window.location.reload()}>
        Try again
      </Button>
    </Page>
  );
}

/** Shown at an address that leads nowhere. */
export function LostPage() {
  return (
    <Page title="There is nothing at this address">
      <Text>The address may be mistyped.</Text>
    </Page>
  );
}
