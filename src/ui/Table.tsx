import type { ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Press } from './Press';
import { colour } from './tokens';
import { Hidden, Words } from './Words';
import { words } from '../words/ui';

interface TableProps {
  /** What the table tells: heard. */
  label: string;
  /** The heads of the columns; one that needs no words for the eye is only heard. */
  columns: readonly (string | { heard: string })[];
  rows: readonly { key: string; mark?: ReactNode; name: string; cells: readonly string[] }[];
  /** Which columns hold figures, from the first after the name. */
  figures?: readonly number[];
  /** Rows are chosen by pressing their names. */
  chosen?: string | null;
  onChoose?: (key: string) => void;
}

const styles = StyleSheet.create({
  table: { minWidth: '100%' },
  row: { flexDirection: 'row', borderTopWidth: 1, borderTopColor: colour.line, alignItems: 'center' },
  head: { borderTopWidth: 0 },
  // Columns give way before any of them is cut off.
  cell: { flexGrow: 1, flexShrink: 1, flexBasis: 76, minWidth: 60, paddingVertical: 6, paddingRight: 8 },
  name: { flexBasis: 96, minWidth: 80, flexDirection: 'row', alignItems: 'center', gap: 6 },
  choose: { flexDirection: 'row', alignItems: 'center', gap: 6 },
  figure: { fontSize: 12 },
});

const as = (role: string, more: object = {}): object => ({ role, ...more });

/** Figures in rows and columns, each with its head. What is wider than the page is scrolled sideways. */
export const Table = ({ label, columns, rows, figures = [], chosen, onChoose }: TableProps) => (
  <ScrollView
    horizontal
    contentContainerStyle={styles.table}
    {...as('group', { tabIndex: 0, 'aria-label': words.labelScrolledSideways(label) })}
  >
    <View style={styles.table} {...as('table', { 'aria-label': label })}>
      <View style={[styles.row, styles.head]} {...as('row')}>
        {columns.map((column, at) => (
          <View key={at} style={[styles.cell, at === 0 && styles.name]} {...as('columnheader')}>
            {typeof column === 'string' ? (
              <Words small quiet>
                {column}
              </Words>
            ) : (
              <Hidden>{column.heard}</Hidden>
            )}
          </View>
        ))}
      </View>
      {rows.map(({ key, mark, name, cells }) => (
        <View key={key} style={styles.row} {...as('row')}>
          <View style={[styles.cell, styles.name]} {...as('rowheader')}>
            {onChoose ? (
              <Press style={styles.choose} pressed={key === chosen} onPress={() => onChoose(key)}>
                {mark}
                <Words small bold={key === chosen}>
                  {name}
                </Words>
              </Press>
            ) : (
              <>
                {mark}
                <Words small>{name}</Words>
              </>
            )}
          </View>
          {cells.map((cell, at) => (
            <View key={at} style={styles.cell} {...as('cell')}>
              <Words small figure={figures.includes(at)} style={figures.includes(at) ? styles.figure : null}>
                {cell}
              </Words>
            </View>
          ))}
        </View>
      ))}
    </View>
  </ScrollView>
);
