import { Box, Heading, Text } from '@chakra-ui/react';
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

/** Shown when a screen fails: what happened, and that the jobs are safe. */
export function CrashPage() {
  const error = useRouteError();
  return (
    <Page title="This screen has failed">
      <Text>Your jobs are kept in this browser as they were. Go back to the shelf and open the job again.</Text>
      <Text mt="8px" fontFamily="mono" fontSize="12px" color="soft">
        {error instanceof Error ? error.message : String(error)}
      </Text>
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
