'use client';
/** Small pieces that all screens share: buttons, names in mono, notices. */
import { Box, chakra, Flex, type ButtonProps, type HTMLChakraProps } from '@chakra-ui/react';
import type { ReactNode, Ref } from 'react';
import { LinkHere } from './address';

/** A button with no look of its own. */
export const BareButton = chakra(
  'button',
  { base: { cursor: 'pointer' } },
  { defaultProps: { type: 'button' } },
);

/** A link in the text, to what is no page of the app or opens it anew. */
export const Anchor = chakra('a', {
  base: { color: 'act', textDecoration: 'underline', textUnderlineOffset: '3px' },
});

/** What scrolls within a page, and can be reached and scrolled by keys; it needs a label. */
export const Region = chakra(
  'div',
  { base: { overflowY: 'auto' } },
  { defaultProps: { role: 'region', tabIndex: 0 } },
);

/** A text of many lines to type into, outside of forms; code, unless a font is said. */
export const TextArea = chakra('textarea', {
  base: {
    display: 'block',
    width: '100%',
    bg: 'field',
    borderWidth: '1px',
    borderColor: 'edge',
    borderRadius: '4px',
    p: '6px',
    fontFamily: 'mono',
    fontSize: '12.5px',
  },
});

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
    <BareButton
      borderWidth="1px"
      borderRadius="5px"
      px="9px"
      py="3px"
      fontSize="13.5px"
      whiteSpace="nowrap"
      _disabled={{ opacity: 0.5, cursor: 'default' }}
      {...looks[look]}
      {...props}
    />
  );
}

/** How far something is that takes a while; without `done` it is only under way. */
export function ProgressBar({
  done,
  of,
  what,
}: {
  done: number | undefined;
  of: number;
  what: string;
}) {
  return (
    <chakra.progress
      value={done}
      max={Math.max(1, of)}
      aria-label={what}
      width="150px"
      height="6px"
      css={{
        appearance: 'none',
        borderRadius: '3px',
        overflow: 'hidden',
        bg: 'line',
        '&::-webkit-progress-bar': { bg: 'line' },
        '&::-webkit-progress-value': { bg: 'act' },
        '&::-moz-progress-bar': { bg: 'act' },
      }}
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

/** A box to tick before its label, outside of forms. */
export function Checkbox({
  label,
  on,
  disabled,
  onSet,
  ...look
}: {
  label: ReactNode;
  on: boolean;
  disabled?: boolean;
  onSet: (on: boolean) => void;
} & HTMLChakraProps<'label'>) {
  return (
    <chakra.label display="inline-flex" gap="6px" alignItems="center" cursor="pointer" {...look}>
      <input
        type="checkbox"
        checked={on}
        disabled={disabled}
        onChange={({ target }) => onSet(target.checked)}
      />
      {label}
    </chakra.label>
  );
}

/** Boxes to tick, one an option, one under the other; `needed` keeps the last one ticked. */
export function Checkboxes({
  options,
  chosen,
  needed = false,
  onChoose,
}: {
  options: readonly { key: string; label: string }[];
  chosen: readonly string[];
  needed?: boolean;
  onChoose: (keys: string[]) => void;
}) {
  return options.map(({ key, label }) => (
    <Checkbox
      key={key}
      display="flex"
      label={
        <chakra.span minW={0} overflowWrap="anywhere">
          {label}
        </chakra.span>
      }
      on={chosen.includes(key)}
      disabled={needed && chosen.length === 1 && chosen[0] === key}
      onSet={(on) => onChoose(on ? [...chosen, key] : chosen.filter((other) => other !== key))}
    />
  ));
}

/** Controls that answer one question together, under its label. */
export function Fieldset({
  legend,
  children,
  ...look
}: { legend: string } & HTMLChakraProps<'fieldset'>) {
  return (
    <chakra.fieldset minW={0} {...look}>
      <chakra.legend color="soft" fontSize="12.5px">
        {legend}
      </chakra.legend>
      {children}
    </chakra.fieldset>
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
