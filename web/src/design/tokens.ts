/** Colour, type, spacing and motion, and the component theme made from them. */
import type { GlobalThemeOverrides } from 'naive-ui'

export const colour = {
  fog0: '#f6f4f1',
  fog1: '#eceae6',
  fog2: '#e0ddd7',
  fog3: '#c9c4bb',
  fog4: '#8f8a81',
  placeholder: '#6d6860',
  ink: '#22292f',
  ink2: '#4b545c',
  russet: '#a3421b',
  russetDeep: '#86330f',
  russetWash: '#f3e0d6',
  butter: '#e5b13a',
  butterWash: '#f7ebcb',
  leaf: '#38684a',
  leafWash: '#dbe8dd',
  danger: '#9c1f2e',
  dangerWash: '#fbeceb',
  white: '#fffdfa',
  paper: '#fff',
  shade: '#0003',
  fog2Deep: '#d3cfc7',
  // Spoon and pan.
  steel: '#b4babe',
  steelDeep: '#9aa0a5',
  steelEdge: '#8b9197',
  steelShine: '#e6eaec',
  // The sauce, and what it is made of.
  sauce: '#f0dfb4',
  sauceEdge: '#c9a95c',
  sauceShine: '#fff7e0',
  inPieces: '#a8b08a',
  inFlour: '#d9b777',
  inSolids: '#e8cf97',
  inWater: '#f3e8cc',
  inFat: '#f0d060',
} as const

export const font = {
  text: "'Source Sans 3 Variable', system-ui, sans-serif",
  display: "'Fraunces Variable', Georgia, serif",
}

const dashed = (name: string) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)

/** Makes every colour and typeface a custom property of the page: `russetWash` is `--russet-wash`. */
export function applyTokens(style: CSSStyleDeclaration): void {
  for (const [name, value] of Object.entries({ ...colour, ...font })) style.setProperty(`--${dashed(name)}`, value)
}

export const theme: GlobalThemeOverrides = {
  common: {
    fontFamily: font.text,
    fontSize: '16px',
    fontSizeMedium: '16px',
    fontSizeLarge: '17px',
    heightMedium: '44px',
    heightLarge: '52px',
    borderRadius: '8px',
    primaryColor: colour.russet,
    primaryColorHover: colour.russetDeep,
    primaryColorPressed: colour.russetDeep,
    primaryColorSuppl: colour.russet,
    errorColor: colour.danger,
    errorColorHover: colour.danger,
    successColor: colour.leaf,
    warningColor: colour.butter,
    textColorBase: colour.ink,
    textColor1: colour.ink,
    textColor2: colour.ink,
    textColor3: colour.ink2,
    placeholderColor: colour.placeholder,
    bodyColor: colour.fog1,
    cardColor: colour.fog0,
    modalColor: colour.fog0,
    popoverColor: colour.white,
    inputColor: colour.white,
    borderColor: colour.fog3,
    dividerColor: colour.fog2,
  },
  Button: { fontWeight: '600', heightMedium: '44px', heightLarge: '64px', fontSizeLarge: '20px' },
  Input: { heightMedium: '44px' },
}
