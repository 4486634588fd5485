import { StyleSheet } from 'react-native';
import { colour, CORNER, font, TARGET } from './tokens';

/** How what is ticked or chosen is set: the box with its words, without the room that RNE leaves around it. */
export const tickStyles = StyleSheet.create({
  box: {
    minHeight: TARGET,
    margin: 0,
    marginLeft: 0,
    marginRight: 0,
    padding: 0,
    justifyContent: 'center',
    backgroundColor: 'transparent',
  },
  words: {
    fontFamily: font.words,
    fontWeight: '400',
    marginLeft: 8,
    marginRight: 0,
    flexShrink: 1,
    color: colour.text,
  },
});

/** How a line that is typed into is set. */
export const fieldStyles = StyleSheet.create({
  container: { paddingHorizontal: 0 },
  input: {
    minHeight: TARGET,
    borderWidth: 1,
    borderBottomWidth: 1,
    borderColor: colour.pip,
    borderRadius: CORNER,
  },
  text: {
    fontFamily: font.words,
    fontSize: 15,
    minHeight: TARGET - 2,
    paddingHorizontal: 12,
    color: colour.text,
  },
});
