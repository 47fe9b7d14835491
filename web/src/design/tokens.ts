/** Colour, type, spacing and motion, and the component theme made from them. */
import type { GlobalThemeOverrides } from 'naive-ui'

export const colour = {
  fog0: '#f6f4f1',
  fog1: '#eceae6',
  fog2: '#e0ddd7',
  fog3: '#c9c4bb',
  fog4: '#8f8a81',
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
  white: '#fffdfa',
} as const

export const font = {
  text: "'Source Sans 3 Variable', system-ui, sans-serif",
  display: "'Fraunces Variable', Georgia, serif",
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
    placeholderColor: '#6d6860',
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
