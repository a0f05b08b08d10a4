/** Paper and ink: the colours and typefaces of the app as a Chakra system, light and dark. */
import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react';
import { slotRecipes } from './recipes';

const pair = (base: string, dark: string) => ({ value: { base, _dark: dark } });

const config = defineConfig({
  globalCss: {
    '*': { '--global-color-border': 'colors.line', '--global-font-mono': 'fonts.mono' },
    '*::placeholder': { color: 'soft' },
    '*::selection': { background: 'selected' },
    'html, body': {
      background: 'ground',
      color: 'ink',
      fontFamily: 'body',
      fontSize: '14px',
      lineHeight: '20px',
      fontVariantNumeric: 'tabular-nums',
    },
    '*:focus-visible': { outline: '2px solid var(--tavro-colors-act)', outlineOffset: '1px' },
    '*, *::before, *::after': {
      _motionReduce: { animation: 'none !important', transition: 'none !important' },
    },
  },
  preflight: true,
  cssVarsPrefix: 'tavro',
  cssVarsRoot: ':where(html)',
  theme: {
    slotRecipes,
    tokens: {
      fonts: {
        body: { value: "'Atkinson Hyperlegible Next Variable', sans-serif" },
        heading: { value: "'Atkinson Hyperlegible Next Variable', sans-serif" },
        mono: { value: "'Atkinson Hyperlegible Mono Variable', monospace" },
      },
    },
    semanticTokens: {
      shadows: {
        raised: pair('0 6px 20px rgb(35 38 42 / 0.18)', '0 6px 20px rgb(0 0 0 / 0.6)'),
      },
      colors: {
        ground: pair('#f4f0e7', '#1d1f21'),
        sheet: pair('#fffdf8', '#26292c'),
        field: pair('#ffffff', '#2e3235'),
        lockedField: pair('#f3efe5', '#2a2c2e'),
        ink: pair('#23262a', '#ebe7dd'),
        soft: pair('#64615a', '#aaa598'),
        line: pair('#ddd6c6', '#3b3e40'),
        edge: pair('#8f8775', '#7d7a70'),
        act: pair('#0b5c63', '#6cc3c6'),
        onAct: pair('#ffffff', '#10282a'),
        selected: pair('#cfe3e1', '#2f5154'),
        actGround: pair('#e3efee', '#1f3436'),
        said: pair('#8a5800', '#e3b45e'),
        saidGround: pair('#fff4da', '#3a3120'),
        saidEdge: pair('#d8a94a', '#8d6f33'),
        bad: pair('#a8261c', '#f08d80'),
        badGround: pair('#fbe9e4', '#43221e'),
        keyInk: pair('#4c3a7a', '#bda9ec'),
      },
    },
  },
});

export const system = createSystem(defaultBaseConfig, config);
