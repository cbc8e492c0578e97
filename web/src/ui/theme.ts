import { createTheme, type MantineColorsTuple } from "@mantine/core";

const petrol: MantineColorsTuple = [
  "#e8f3f4",
  "#d3e5e8",
  "#a6cad0",
  "#76aeb8",
  "#4f96a3",
  "#2f7f8d",
  "#156b7a",
  "#0b5562",
  "#08434d",
  "#042f37",
];

export const theme = createTheme({
  primaryColor: "petrol",
  primaryShade: { light: 7, dark: 5 },
  colors: { petrol },
  fontFamily: "'Instrument Sans Variable', sans-serif",
  fontFamilyMonospace: "'JetBrains Mono Variable', monospace",
  defaultRadius: "md",
  fontSizes: { xs: "12px", sm: "13px", md: "14px", lg: "16px", xl: "20px" },
  headings: {
    fontWeight: "650",
    sizes: { h1: { fontSize: "18px" }, h2: { fontSize: "15px" }, h3: { fontSize: "13px" } },
  },
  // by their names: what is imported here would be loaded before anything shows
  components: {
    Button: { defaultProps: { size: "xs", fw: 600 } },
    Modal: { defaultProps: { closeButtonProps: { "aria-label": "Close" } } },
    TextInput: { defaultProps: { size: "xs" } },
    NumberInput: { defaultProps: { size: "xs", hideControls: true } },
    Select: { defaultProps: { size: "xs" } },
  },
});
