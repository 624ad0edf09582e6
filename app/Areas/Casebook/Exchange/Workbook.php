<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Exchange;

use PhpOffice\PhpSpreadsheet\Cell\DataType;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use PhpOffice\PhpSpreadsheet\Style\Alignment;
use PhpOffice\PhpSpreadsheet\Writer\Xlsx;

/**
 * Writes rows as a workbook. Every cell is text: nothing is taken for a number, a date or a formula.
 */
final class Workbook
{
    /**
     * @param  iterable<list<string>>  $rows the first is the header
     */
    public function write(string $path, iterable $rows): void
    {
        $book = new Spreadsheet();
        $sheet = $book->getActiveSheet();
        $sheet->setTitle('Cases');
        $number = 0;
        foreach ($rows as $cells) {
            $number++;
            foreach ($cells as $at => $cell) {
                if ('' !== $cell) {
                    $sheet->setCellValueExplicit([$at + 1, $number], $cell, DataType::TYPE_STRING);
                }
            }
            if (1 === $number) {
                $last = $sheet->getHighestColumn();
                $sheet
                    ->getStyle("A1:{$last}1")
                    ->getFont()
                    ->setBold(true);
                foreach ($cells as $at => $name) {
                    $sheet
                        ->getColumnDimensionByColumn($at + 1)
                        ->setWidth(\in_array($name, ['title', 'action', 'expected', 'preconditions', 'objective'], true) ? 48 : 16);
                }
            }
        }
        $sheet->freezePane('A2');
        $sheet
            ->getStyle('A:' . $sheet->getHighestColumn())
            ->getAlignment()
            ->setWrapText(true)
            ->setVertical(Alignment::VERTICAL_TOP);
        (new Xlsx($book))->setPreCalculateFormulas(false)->save($path);
        $book->disconnectWorksheets();
    }
}
