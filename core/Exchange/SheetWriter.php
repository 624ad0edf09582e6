<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

/**
 * Writes rows as a workbook of one sheet (Office Open XML, ECMA-376 part 1), row by row. Every cell is text: nothing in it is taken
 * for a number, a date or a formula.
 */
final readonly class SheetWriter
{
    private const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';

    /** The longest text that a cell holds. */
    private const LONGEST = 32_767;

    /**
     * @param  list<string>  $wide names in the header whose columns are wide
     */
    public function __construct(private string $title, private array $wide = []) {}

    /**
     * @param  iterable<list<string>>  $rows the first is the header
     *
     * @throws \RuntimeException when the file cannot be written
     */
    public function write(string $path, iterable $rows): void
    {
        $sheet = "{$path}.sheet";
        try {
            $this->sheet($sheet, $rows);
            $zip = new \ZipArchive();
            if (true !== $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE)) {
                throw new \RuntimeException("{$path} cannot be written.");
            }
            foreach ($this->parts() as $name => $xml) {
                $zip->addFromString($name, "<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n{$xml}");
            }
            $zip->addFile($sheet, 'xl/worksheets/sheet1.xml');
            if (!$zip->close()) {
                throw new \RuntimeException("{$path} cannot be written.");
            }
        } finally {
            @unlink($sheet);
        }
    }

    /**
     * @param  iterable<list<string>>  $rows
     */
    private function sheet(string $path, iterable $rows): void
    {
        $xml = new \XMLWriter();
        if (!$xml->openUri($path)) {
            throw new \RuntimeException("{$path} cannot be written.");
        }
        $xml->startDocument('1.0', 'UTF-8', 'yes');
        $xml->startElement('worksheet');
        $xml->writeAttribute('xmlns', self::MAIN);
        $xml->writeRaw(
            '<sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/>' .
                '</sheetView></sheetViews>',
        );
        $number = 0;
        foreach ($rows as $cells) {
            $number++;
            if (1 === $number) {
                $this->columns($xml, $cells);
                $xml->startElement('sheetData');
            }
            $this->row($xml, $number, $cells);
            if (0 === $number % 200) {
                $xml->flush();
            }
        }
        if (0 === $number) {
            $xml->startElement('sheetData');
        }
        $xml->endElement();
        $xml->endElement();
        $xml->endDocument();
        $xml->flush();
    }

    /**
     * @param  list<string>  $header
     */
    private function columns(\XMLWriter $xml, array $header): void
    {
        if ([] === $header) {
            return;
        }
        $xml->startElement('cols');
        foreach ($header as $at => $name) {
            $xml->startElement('col');
            $xml->writeAttribute('min', (string) ($at + 1));
            $xml->writeAttribute('max', (string) ($at + 1));
            $xml->writeAttribute('width', \in_array($name, $this->wide, true) ? '48' : '16');
            $xml->writeAttribute('customWidth', '1');
            $xml->endElement();
        }
        $xml->endElement();
    }

    /**
     * @param  list<string>  $cells
     */
    private function row(\XMLWriter $xml, int $number, array $cells): void
    {
        $xml->startElement('row');
        $xml->writeAttribute('r', (string) $number);
        foreach ($cells as $at => $cell) {
            if ('' === $cell) {
                continue;
            }
            $xml->startElement('c');
            $xml->writeAttribute('r', SheetReader::name($at) . $number);
            $xml->writeAttribute('s', 1 === $number ? '2' : '1');
            $xml->writeAttribute('t', 'inlineStr');
            $xml->startElement('is');
            $xml->startElement('t');
            $xml->writeAttribute('xml:space', 'preserve');
            $xml->text(self::escaped(mb_substr($cell, 0, self::LONGEST)));
            $xml->endElement();
            $xml->endElement();
            $xml->endElement();
        }
        $xml->endElement();
    }

    /**
     * Characters that XML cannot hold stand as _xHHHH_ (ECMA-376 part 1, 22.9.2.19), and what looks so by chance too.
     */
    private static function escaped(string $text): string
    {
        $text = (string) preg_replace('/_(?=x[0-9A-Fa-f]{4}_)/', '_x005F_', $text);

        return (string) preg_replace_callback(
            '/[\x00-\x08\x0B-\x1F\x{FFFE}\x{FFFF}]/u',
            static fn(array $m): string => \sprintf('_x%04X_', mb_ord($m[0], 'UTF-8')),
            $text,
        );
    }

    /**
     * @return array<string, string> what a workbook has beside its sheet, by name
     */
    private function parts(): array
    {
        $package = 'http://schemas.openxmlformats.org/package/2006';
        $office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
        $type = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
        $title = htmlspecialchars($this->title, \ENT_XML1 | \ENT_QUOTES);
        $top = '<alignment vertical="top" wrapText="1"/>';

        return [
            '[Content_Types].xml' =>
                "<Types xmlns=\"{$package}/content-types\">" .
                '<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>' .
                '<Default Extension="xml" ContentType="application/xml"/>' .
                "<Override PartName=\"/xl/workbook.xml\" ContentType=\"{$type}.sheet.main+xml\"/>" .
                "<Override PartName=\"/xl/worksheets/sheet1.xml\" ContentType=\"{$type}.worksheet+xml\"/>" .
                "<Override PartName=\"/xl/styles.xml\" ContentType=\"{$type}.styles+xml\"/></Types>",
            '_rels/.rels' =>
                "<Relationships xmlns=\"{$package}/relationships\">" .
                "<Relationship Id=\"rId1\" Type=\"{$office}/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>",
            'xl/workbook.xml' =>
                '<workbook xmlns="' .
                self::MAIN .
                "\" xmlns:r=\"{$office}\"><sheets><sheet name=\"{$title}\" sheetId=\"1\" r:id=\"rId1\"/></sheets></workbook>",
            'xl/_rels/workbook.xml.rels' =>
                "<Relationships xmlns=\"{$package}/relationships\">" .
                "<Relationship Id=\"rId1\" Type=\"{$office}/worksheet\" Target=\"worksheets/sheet1.xml\"/>" .
                "<Relationship Id=\"rId2\" Type=\"{$office}/styles\" Target=\"styles.xml\"/></Relationships>",
            'xl/styles.xml' =>
                '<styleSheet xmlns="' .
                self::MAIN .
                '"><fonts count="2"><font><sz val="11"/><name val="Calibri"/></font>' .
                '<font><b/><sz val="11"/><name val="Calibri"/></font></fonts>' .
                '<fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills>' .
                '<borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs>' .
                '<cellXfs count="3"><xf xfId="0"/>' .
                "<xf xfId=\"0\" applyAlignment=\"1\">{$top}</xf>" .
                "<xf xfId=\"0\" fontId=\"1\" applyFont=\"1\" applyAlignment=\"1\">{$top}</xf></cellXfs></styleSheet>",
        ];
    }
}
