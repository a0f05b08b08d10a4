'use client';
/** The head of every page: where one can go, where one is, and what can be done there. */
import { chakra, Flex } from '@chakra-ui/react';
import { LinkHere } from './address';
import { useTheme } from 'next-themes';
import { useEffect, useState, type ReactNode } from 'react';
import { Button } from './kit';

const SECTIONS = [
  { key: 'forms', label: 'Forms', href: '/' },
  { key: 'records', label: 'Records', href: '/records' },
  { key: 'tables', label: 'Tables', href: '/tables' },
  { key: 'services', label: 'Services', href: '/services' },
  { key: 'people', label: 'People', href: '/people' },
  { key: 'problems', label: 'Problems', href: '/problems' },
  { key: 'recordings', label: 'Recordings', href: '/recordings' },
] as const;
export type Section = (typeof SECTIONS)[number]['key'];

/** The pages of one form. */
const ROOMS = [
  { key: 'bench', label: 'Bench', href: (form: string) => `/bench/${form}` },
  { key: 'fill', label: 'Fill in', href: (form: string) => `/fill/${form}` },
  { key: 'records', label: 'Records', href: (form: string) => `/records/${form}` },
] as const;

export interface PageHeadProps {
  /** The workspace and the section of it that the page belongs to; none for what is about all of them. */
  workspace?: string;
  section?: Section;
  title: string;
  /** The form that the page is about, and which of its pages it is. */
  form?: { name: string; room: (typeof ROOMS)[number]['key'] };
  children?: ReactNode;
}

export function PageHead({ workspace, section, title, form, children }: PageHeadProps) {
  return (
    <chakra.header borderBottomWidth="1px" borderColor="line">
      <Flex
        align="center"
        gap="16px"
        px="14px"
        minH="34px"
        bg="sheet"
        borderBottomWidth="1px"
        borderColor="line"
        fontSize="13px"
        css={{ overflowX: 'auto', whiteSpace: 'nowrap' }}
      >
        <chakra.a asChild fontWeight={750} fontSize="15px" letterSpacing="0.02em" color="act">
          <LinkHere href="/">tavro</LinkHere>
        </chakra.a>
        {workspace !== undefined && (
          <>
            <chakra.a
              href="/workspaces"
              title="All workspaces"
              color="soft"
              _hover={{ color: 'act', textDecoration: 'underline' }}
              css={{
                '@media (max-width: 759px)': {
                  flex: '0 0 auto',
                  maxWidth: '84px',
                  overflow: 'hidden',
                  textOverflow: 'ellipsis',
                },
              }}
            >
              {workspace}
            </chakra.a>
            <Flex as="nav" aria-label="Workspace" gap="2px" alignSelf="stretch">
              {SECTIONS.map(({ key, label, href }) => (
                <NavLink key={key} href={href} current={key === section}>
                  {label}
                </NavLink>
              ))}
            </Flex>
          </>
        )}
        <Flex ml="auto">
          <ThemeSwitch />
        </Flex>
      </Flex>
      <Flex align="center" gap="10px" px="14px" minH="42px" py="5px" flexWrap="wrap">
        <chakra.h1 fontWeight={640} fontSize="15px" whiteSpace="nowrap">
          {title}
        </chakra.h1>
        {form !== undefined && (
          <Flex as="nav" aria-label={`Pages of ${title}`} gap="8px" fontSize="13px">
            {ROOMS.map(({ key, label, href }) => (
              <chakra.a
                key={key}
                asChild
                aria-current={key === form.room ? 'page' : undefined}
                color={key === form.room ? 'ink' : 'act'}
                textDecoration={key === form.room ? 'none' : 'underline'}
                textUnderlineOffset="3px"
              >
                <LinkHere href={href(form.name)} prefetch={false}>
                  {label}
                </LinkHere>
              </chakra.a>
            ))}
          </Flex>
        )}
        <Flex
          ml="auto"
          align="center"
          gap="6px"
          flexWrap="wrap"
          css={{
            '& button, & select, & input': { fontSize: '13px' },
            '& button': { paddingInline: '6px' },
          }}
        >
          {children}
        </Flex>
      </Flex>
    </chakra.header>
  );
}

function NavLink({
  href,
  current,
  children,
}: {
  href: string;
  current: boolean;
  children: ReactNode;
}) {
  return (
    <chakra.a
      asChild
      display="flex"
      alignItems="center"
      px="8px"
      color={current ? 'ink' : 'soft'}
      fontWeight={current ? 620 : 400}
      boxShadow={current ? 'inset 0 -2px 0 {colors.act}' : undefined}
      aria-current={current ? 'page' : undefined}
      _hover={{ color: 'ink' }}
    >
      <LinkHere href={href} prefetch={false}>
        {children}
      </LinkHere>
    </chakra.a>
  );
}

function ThemeSwitch() {
  const { resolvedTheme, setTheme } = useTheme();
  const [mounted, setMounted] = useState(false);
  // The theme is known only in the browser.
  useEffect(() => setMounted(true), []);
  const dark = mounted && resolvedTheme === 'dark';
  return (
    <Button
      aria-label={dark ? 'Light theme' : 'Dark theme'}
      title={dark ? 'Light theme' : 'Dark theme'}
      onClick={() => setTheme(dark ? 'light' : 'dark')}
      px="7px"
      py="0"
    >
      <span aria-hidden>◐</span>
    </Button>
  );
}
