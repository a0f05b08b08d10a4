'use client';
/** Small pieces that all screens share: buttons, names in mono, notices. */
import { Box, chakra, Flex, type ButtonProps, type HTMLChakraProps } from '@chakra-ui/react';
import type { ReactNode, Ref } from 'react';
import { LinkHere } from './address';

const PlainButton = chakra('button');

/** `plain` for what can be done, `go` for the one that carries on, `text` inside sentences. */
export function Button({
  look = 'plain',
  ...props
}: {
  look?: 'plain' | 'go' | 'text';
  ref?: Ref<HTMLButtonElement>;
} & HTMLChakraProps<'button'> &
  Pick<ButtonProps, 'disabled'>) {
  const looks = {
    plain: { bg: 'sheet', borderColor: 'line', color: 'ink', _hover: { borderColor: 'edge' } },
    go: { bg: 'act', borderColor: 'act', color: 'onAct', _hover: { filter: 'brightness(1.08)' } },
    text: {
      bg: 'transparent',
      borderColor: 'transparent',
      color: 'act',
      px: '2px',
      py: 0,
      textDecoration: 'underline',
      textUnderlineOffset: '3px',
    },
  } as const;
  return (
    <PlainButton
      type="button"
      borderWidth="1px"
      borderRadius="5px"
      px="9px"
      py="3px"
      fontSize="13.5px"
      whiteSpace="nowrap"
      cursor="pointer"
      _disabled={{ opacity: 0.5, cursor: 'default' }}
      {...looks[look]}
      {...props}
    />
  );
}

export function Mono({ children, ...props }: HTMLChakraProps<'span'> & { children: ReactNode }) {
  return (
    <chakra.span fontFamily="mono" fontSize="0.9em" {...props}>
      {children}
    </chakra.span>
  );
}

/** Something could not be had from the server; `what` is a sentence without its end. */
export function OutOfReach({
  what,
  missing = 'the server',
  onAgain,
}: {
  what: string;
  missing?: string;
  onAgain: () => void;
}) {
  return (
    <Notice tone="error">
      {what}: {missing} is out of reach. <Button onClick={onAgain}>Try again</Button>
    </Notice>
  );
}

/** A link within the app that reads as one. */
export function TextLink({
  href,
  strong = false,
  children,
}: {
  href: string;
  strong?: boolean;
  children: ReactNode;
}) {
  return (
    <chakra.a
      asChild
      color="act"
      textDecoration="underline"
      textUnderlineOffset="3px"
      fontWeight={strong ? 620 : 400}
    >
      <LinkHere href={href}>{children}</LinkHere>
    </chakra.a>
  );
}

/** A thing of the workspace in a list: its title, which leads to it, and its technical name. */
export function NamedLink({ href, title, name }: { href: string; title: string; name: string }) {
  return (
    <>
      <TextLink href={href} strong>
        {title}
      </TextLink>
      <Mono as="div" color="soft">
        {name}
      </Mono>
    </>
  );
}

/** A line that says what went wrong or what to know, with its mark. */
export function Notice({
  tone,
  children,
  ...props
}: { tone: 'info' | 'warning' | 'error'; children: ReactNode } & Pick<
  HTMLChakraProps<'div'>,
  'm' | 'mt' | 'mb' | 'id' | 'whiteSpace'
>) {
  const looks = {
    info: { bg: 'actGround', color: 'ink', borderColor: 'act', mark: 'i' },
    warning: { bg: 'saidGround', color: 'ink', borderColor: 'saidEdge', mark: '!' },
    error: { bg: 'badGround', color: 'ink', borderColor: 'bad', mark: '×' },
  }[tone];
  return (
    <Flex
      gap="8px"
      px="10px"
      py="5px"
      borderWidth="1px"
      borderRadius="4px"
      bg={looks.bg}
      borderColor={looks.borderColor}
      role={tone === 'error' ? 'alert' : 'status'}
      {...props}
    >
      <Box as="span" aria-hidden fontWeight={700} color={looks.borderColor}>
        {looks.mark}
      </Box>
      <Box flex="1">{children}</Box>
    </Flex>
  );
}

/** A native select in the look of the app; native, since it is at home on every keyboard and screen reader. */
export function Select({
  options,
  ...props
}: { options: readonly { key: string; label: string }[] } & Omit<
  HTMLChakraProps<'select'>,
  'children'
>) {
  return (
    <chakra.select
      bg="sheet"
      borderWidth="1px"
      borderColor="line"
      borderRadius="5px"
      px="4px"
      py="3px"
      fontSize="13.5px"
      {...props}
    >
      {options.map((option) => (
        <option key={option.key} value={option.key}>
          {option.label}
        </option>
      ))}
    </chakra.select>
  );
}

/** A cell of a plain table. */
export function Cell({ children }: { children: ReactNode }) {
  return (
    <chakra.td py="7px" pr="12px" verticalAlign="top" borderBottomWidth="1px" borderColor="line">
      {children}
    </chakra.td>
  );
}

/** A plain list of things, one a row. */
export function ListTable({
  caption,
  heads,
  children,
}: {
  caption: string;
  heads: readonly string[];
  children: ReactNode;
}) {
  return (
    <chakra.table width="100%" borderCollapse="collapse">
      <chakra.caption srOnly>{caption}</chakra.caption>
      <thead>
        <tr>
          {heads.map((head) => (
            <HeadCell key={head}>{head}</HeadCell>
          ))}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </chakra.table>
  );
}

export function HeadCell({ children, ...props }: HTMLChakraProps<'th'>) {
  return (
    <chakra.th
      textAlign="left"
      fontWeight={400}
      color="soft"
      fontSize="12px"
      pb="4px"
      pr="12px"
      borderBottomWidth="1px"
      borderColor="line"
      {...props}
    >
      {children}
    </chakra.th>
  );
}

/** A line to type into, outside of forms. */
export function Line(props: HTMLChakraProps<'input'> & { ref?: Ref<HTMLInputElement> }) {
  return (
    <chakra.input
      bg="field"
      borderWidth="1px"
      borderColor="edge"
      borderRadius="4px"
      px="9px"
      py="3px"
      {...props}
    />
  );
}

/** A control under its label, outside of forms. */
export function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <chakra.label display="block">
      <chakra.span display="block" color="soft" fontSize="12.5px">
        {label}
      </chakra.span>
      {children}
    </chakra.label>
  );
}

/** So many records; more than were counted are "more than". */
export function countInWords({ count, more }: { count: number; more: boolean }): string {
  if (more) return `more than ${count.toLocaleString('en-GB')} records`;
  return count === 1 ? '1 record' : `${count.toLocaleString('en-GB')} records`;
}
