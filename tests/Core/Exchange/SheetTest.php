<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Exchange;

use LucidStep\Core\Exchange\SheetReader;
use LucidStep\Core\Exchange\SheetWriter;
use LucidStep\Core\Exchange\Unreadable;
use PhpOffice\PhpSpreadsheet\Cell\DataType;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\RichText\RichText;
use PhpOffice\PhpSpreadsheet\Shared\Date;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use PhpOffice\PhpSpreadsheet\Writer\Xlsx;
use PHPUnit\Framework\TestCase;

/**
 * Workbooks, read and written row by row. What a well-known library writes is read as it is there, and the other way round.
 */
final class SheetTest extends TestCase
{
    private string $path;

    protected function setUp(): void
    {
        $this->path = sys_get_temp_dir() . '/lucid-step-sheet-' . bin2hex(random_bytes(6)) . '.xlsx';
    }

    protected function tearDown(): void
    {
        @unlink($this->path);
    }

    public function test_whatever_is_written_is_read_again_and_by_the_library_too(): void
    {
        mt_srand(7);
        $alphabet = ['a', 'Ü', '👍', ' ', "\n", '<', '&', '"', '=', '1', '_x0041_', "\u{7}", "\t", '–', '0', ']]>', "'"];
        for ($n = 0; $n < 40; $n++) {
            $rows = [];
            for ($r = 0, $most = mt_rand(1, 8); $r < $most; $r++) {
                $cells = [];
                for ($c = 0; $c < 30; $c++) {
                    $text = '';
                    for ($i = mt_rand(0, 6); $i > 0; $i--) {
                        $text .= $alphabet[array_rand($alphabet)];
                    }
                    $cells[] = 0 === mt_rand(0, 3) ? '' : $text;
                }
                $rows[] = $cells;
            }
            (new SheetWriter('Cases & more', ['a']))->write($this->path, $rows);
            self::assertSame($rows, $this->read(30));
            $sheet = IOFactory::load($this->path)->getSheet(0);
            self::assertSame('Cases & more', $sheet->getTitle());
            foreach ($rows as $r => $cells) {
                foreach ($cells as $c => $text) {
                    $theirs = $sheet->getCell([$c + 1, $r + 1])->getValue();
                    self::assertSame($text, $theirs instanceof RichText ? $theirs->getPlainText() : (string) $theirs);
                }
            }
        }
    }

    public function test_what_the_library_writes_is_read_as_people_see_it(): void
    {
        $book = new Spreadsheet();
        $sheet = $book->getActiveSheet();
        $rich = new RichText();
        $rich->createText('Press ');
        $rich->createTextRun('Pay')->getFont()?->setBold(true);
        $sheet->setCellValue('A1', $rich);
        $sheet->setCellValueExplicit('B1', '007', DataType::TYPE_STRING);
        $sheet->setCellValue('C1', 12.5);
        $sheet->setCellValue('D1', true);
        $sheet->setCellValue('E1', Date::PHPToExcel(new \DateTimeImmutable('2026-11-29 17:30', new \DateTimeZone('UTC'))));
        $sheet->getStyle('E1')->getNumberFormat()->setFormatCode('dd"d"\.mm.yyyy');
        $sheet->setCellValue('F1', 0.25);
        $sheet->getStyle('F1')->getNumberFormat()->setFormatCode('0.00" days"');
        $sheet->setCellValue('G1', '=1+2');
        $sheet->setCellValue('H1', '=CONCATENATE("a","b")');
        $sheet->setCellValue('I1', '=1/0');
        $sheet->setCellValue('B3', "two\nlines");
        $sheet->setCellValue('A4', Date::PHPToExcel(new \DateTimeImmutable('1999-12-31')));
        $sheet->getStyle('A4')->getNumberFormat()->setFormatCode('mm-dd-yy');
        $book->createSheet()->setCellValue('A1', 'another sheet');
        (new Xlsx($book))->save($this->path);
        self::assertSame(
            [
                ['Press Pay', '007', '12.5', 'yes', '2026-11-29', '0.25', '3', 'ab', '#DIV/0!'],
                ['', "two\nlines", '', '', '', '', '', '', ''],
                ['1999-12-31', '', '', '', '', '', '', '', ''],
            ],
            $this->read(9),
        );
    }

    public function test_a_workbook_of_another_hand_is_read_too(): void
    {
        $main = 'http://purl.oclc.org/ooxml/spreadsheetml/main';
        $links = 'http://purl.oclc.org/ooxml/officeDocument/relationships';
        $zip = new \ZipArchive();
        $zip->open($this->path, \ZipArchive::CREATE);
        $zip->addFromString(
            'xl/workbook.xml',
            "<x:workbook xmlns:x='{$main}' xmlns:rel='{$links}'><x:workbookPr date1904='1'/><x:sheets>" .
                "<x:sheet name='S' sheetId='7' rel:id='rId9'/><x:sheet name='T' sheetId='8' rel:id='rId2'/></x:sheets></x:workbook>",
        );
        $zip->addFromString(
            'xl/_rels/workbook.xml.rels',
            "<Relationships><Relationship Target='/xl/deep/first.xml' Id='rId9' Type='{$links}/worksheet'/>" .
                "<Relationship Target='Texts.xml' Id='rId3' Type='{$links}/sharedStrings'/>" .
                "<Relationship Target='looks.xml' Id='rId4' Type='{$links}/styles'/></Relationships>",
        );
        $zip->addFromString(
            'xl/Texts.xml',
            "<x:sst xmlns:x='{$main}'><x:si><x:t>Pay</x:t><x:rPh sb='0' eb='1'><x:t>pei</x:t></x:rPh></x:si></x:sst>",
        );
        $zip->addFromString(
            'xl/looks.xml',
            "<x:styleSheet xmlns:x='{$main}'><x:cellXfs><x:xf/><x:xf numFmtId='14'/></x:cellXfs></x:styleSheet>",
        );
        $zip->addFromString(
            'xl/deep/first.xml',
            "<x:worksheet xmlns:x='{$main}'><x:sheetData><x:row><x:c t='s'><x:v>0</x:v></x:c><x:c s='1'><x:v>0</x:v></x:c>" .
                "<x:c t='b'><x:v>0</x:v></x:c></x:row></x:sheetData></x:worksheet>",
        );
        $zip->close();
        self::assertSame([['Pay', '1904-01-01', 'no']], $this->read(3));
    }

    public function test_what_stands_outside_is_named_and_what_is_no_workbook_is_refused(): void
    {
        (new SheetWriter('S'))->write($this->path, [array_fill(0, 27, 'x'), ['y']]);
        foreach ([[26, 100, 'AA1'], [100, 1, 'A2']] as [$columns, $rows, $cell]) {
            try {
                iterator_to_array(SheetReader::open($this->path)->rows($columns, $rows));
                self::fail($cell);
            } catch (Unreadable $e) {
                self::assertStringContainsString("something in cell {$cell};", $e->getMessage());
            }
        }
        $outer = '<!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]>';
        $bad = [
            'xl/worksheets/sheet1.xml' => [
                "{$outer}<worksheet><sheetData><row><c t=\"str\"><v>&b;</v></c></row></sheetData></worksheet>",
                '<worksheet><sheetData>',
            ],
            'xl/workbook.xml' => ['', '<workbook/>'],
        ];
        foreach ($bad as $part => $contents) {
            foreach ($contents as $content) {
                (new SheetWriter('S'))->write($this->path, [['a']]);
                $zip = new \ZipArchive();
                $zip->open($this->path);
                $zip->addFromString($part, $content);
                $zip->close();
                try {
                    iterator_to_array(SheetReader::open($this->path)->rows(9, 9));
                    self::fail($content);
                } catch (Unreadable $e) {
                    self::assertStringContainsString('cannot be read', $e->getMessage());
                }
            }
        }
        file_put_contents($this->path, 'PK broken');
        $this->expectException(Unreadable::class);
        SheetReader::open($this->path);
    }

    /**
     * @return list<list<string>> rows that are there, each as wide
     */
    private function read(int $wide): array
    {
        $rows = [];
        foreach (SheetReader::open($this->path)->rows(120, 200_000) as $cells) {
            $rows[] = array_values(array_replace(array_fill(0, $wide, ''), $cells));
        }

        return $rows;
    }
}
