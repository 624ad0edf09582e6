<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Coverage;

use LucidStep\Core\Coverage\ImportedRequirement;
use LucidStep\Core\Coverage\KnownRequirement;
use LucidStep\Core\Coverage\RequirementImport;
use LucidStep\Core\Coverage\RequirementWords;
use LucidStep\Core\Exchange\ReqIfReader;
use LucidStep\Core\Exchange\ReqIfWriter;
use LucidStep\Core\Exchange\RequirementRecord;
use LucidStep\Core\Exchange\RequirementSheet;
use LucidStep\Core\Exchange\Unreadable;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Requirements in files: sheets, outlines and the Requirements Interchange Format.
 */
final class RequirementFilesTest extends TestCase
{
    public function test_columns_are_found_by_name_and_the_rest_is_kept_as_details(): void
    {
        $rows = [1 => ['ID', 'Name', 'Parent', 'Description', 'Owner'], 2 => ['F-1', 'Fares', '', "By age.\nBy group.", 'Maren']];
        [$one] = RequirementSheet::read($rows);
        self::assertEquals(new RequirementWords('Fares', "By age.\nBy group.", 'F-1', ['Owner' => 'Maren']), $one->words);
        [$said] = RequirementSheet::read($rows, ['Owner' => 'none', 'Description' => 'detail']);
        self::assertEquals(new RequirementWords('Fares', '', 'F-1', ['Description' => "By age.\nBy group."]), $said->words);
        $this->expectExceptionMessage('No column is the title.');
        RequirementSheet::read([1 => ['ID', 'Owner'], 2 => ['F-1', 'Maren']]);
    }

    public function test_levels_and_indents_say_what_stands_below_what(): void
    {
        $levels = RequirementSheet::read([
            1 => ['Level', 'Title'],
            2 => ['1', 'A'],
            3 => ['2', 'B'],
            4 => ['3', 'C'],
            5 => ['2', 'D'],
            6 => ['1', 'E'],
        ]);
        self::assertSame([null, 2, 3, 2, null], array_map(static fn(RequirementRecord $r): ?int => $r->parentRow, $levels));
        $outline = RequirementSheet::fromOutline("Booking\n  1.1 Fares\n\n\t- By age\n  Bikes\nTides\r\n");
        self::assertSame(['Booking', '1.1 Fares', 'By age', 'Bikes', 'Tides'], array_map(static fn($r) => $r->words->title, $outline));
        self::assertSame([null, 1, 2, 1, null], array_map(static fn(RequirementRecord $r): ?int => $r->parentRow, $outline));
    }

    public function test_what_is_there_is_found_by_key_then_identifier_then_title(): void
    {
        $import = new RequirementImport(
            [
                new KnownRequirement('q1', 'TST-Q1', new RequirementWords('Fares', 'Old', 'F-1', ['Owner' => 'Maren']), false),
                new KnownRequirement('q2', 'TST-Q2', new RequirementWords('Tides'), true),
            ],
            30,
        );
        $rows = $import->rows([
            new RequirementRecord(2, 'tst-q1', new RequirementWords('Fares'), says: ['title']),
            new RequirementRecord(3, '', new RequirementWords('tides', 'New'), says: ['title', 'text']),
            new RequirementRecord(4, '', new RequirementWords('New one', '', 'F-9'), 'F-1'),
            new RequirementRecord(5, '', new RequirementWords('Again', '', 'F-1')),
            new RequirementRecord(6, 'TST-Q7', new RequirementWords('Nowhere')),
            new RequirementRecord(7, '', new RequirementWords('Lost', '', 'F-3'), 'F-77'),
            new RequirementRecord(8, '', new RequirementWords('')),
            new RequirementRecord(9, '', new RequirementWords('Loop a', '', 'L-1'), 'L-2'),
            new RequirementRecord(10, '', new RequirementWords('Loop b', '', 'L-2'), 'L-1'),
        ]);
        $of = static fn(ImportedRequirement $r): array => [$r->id, $r->changes, $r->why];
        self::assertSame(['q1', [], null], $of($rows[0]), 'what the file does not say stays');
        self::assertSame(['q2', ['title', 'text'], null], $of($rows[1]));
        self::assertTrue($rows[1]->comesBack);
        self::assertSame([null, [], null], $of($rows[2]));
        self::assertSame([null, 'q1'], [$rows[2]->parentAt, $rows[2]->parentId], 'the row that bears it is left out; it is here');
        self::assertSame('Row 2 is the same requirement.', $rows[3]->why);
        self::assertStringContainsString('no requirement TST-Q7', (string) $rows[4]->why);
        self::assertStringContainsString('below F-77', (string) $rows[5]->why);
        self::assertSame('Say what must hold.', $rows[6]->why);
        self::assertSame(['It would stand below itself.', 'It would stand below itself.'], [$rows[7]->why, $rows[8]->why]);
    }

    public function test_a_file_of_another_program_keeps_identifiers_hierarchy_and_formatted_text(): void
    {
        $records = ReqIfReader::read((string) file_get_contents(__DIR__ . '/ferries.reqif'));
        self::assertCount(3, $records);
        [$fares, $age, $loose] = $records;
        self::assertSame(['obj-1', '', 'Fares'], [$fares->words->externalId, $fares->parent, $fares->words->title]);
        self::assertSame(['obj-2', 'obj-1'], [$age->words->externalId, $age->parent]);
        $expected =
            "Who is **16 or older** pays the *full* fare:\n\n- from Skerrywick\n- from Holm\n  1. by day\n  2. by night\n\n" .
            'See [the rules](https://rules.skerrywick.test/fares) for 2 \\* 3 = 6.';
        self::assertSame($expected, $age->words->text);
        self::assertSame(['Status' => 'agreed, reviewed', 'Weight' => '3', 'ReqIF.ForeignID' => '17'], $age->words->details);
        self::assertSame(['obj-3', '', 'It stands in no specification'], [$loose->words->externalId, $loose->parent, $loose->words->title]);
    }

    /**
     * @return iterable<string, array{string, string}>
     */
    public static function broken(): iterable
    {
        $whole = '<REQ-IF xmlns="' . ReqIfReader::SPACE . '"><CORE-CONTENT>%s</CORE-CONTENT></REQ-IF>';
        yield 'half a file' => [substr(\sprintf($whole, ''), 0, -9), 'no whole XML file'];
        yield 'another format' => ['<html><body/></html>', 'begins with <html>'];
        yield 'nothing' => ['', 'no whole XML file'];
        yield 'an entity' => ['<!DOCTYPE r [<!ENTITY x SYSTEM "file:///etc/hostname">]><REQ-IF>&x;</REQ-IF>', 'defines a document type'];
        yield 'entities of entities' => ['<!doctype r [<!ENTITY a "ha"><!ENTITY b "&a;&a;">]><REQ-IF>&b;</REQ-IF>', 'document type'];
        yield 'nested deep' => [
            \sprintf($whole, str_repeat('<CHILDREN>', 10_000) . str_repeat('</CHILDREN>', 10_000)),
            'deep in one another',
        ];
        yield 'an object twice' => [\sprintf($whole, str_repeat('<SPEC-OBJECT IDENTIFIER="a"/>', 2)), 'Two objects have the identifier a'];
        yield 'no identifier' => [\sprintf($whole, '<SPEC-OBJECT/>'), 'has no identifier'];
        $place = '<SPEC-HIERARCHY><OBJECT><SPEC-OBJECT-REF>x</SPEC-OBJECT-REF></OBJECT></SPEC-HIERARCHY>';
        yield 'a place of nothing' => [\sprintf($whole, "<SPECIFICATION><CHILDREN>{$place}</CHILDREN></SPECIFICATION>"), 'not there: x'];
    }

    #[DataProvider('broken')]
    public function test_what_is_broken_or_reaches_outside_is_refused(string $xml, string $words): void
    {
        try {
            ReqIfReader::read($xml);
            self::fail('It was read.');
        } catch (Unreadable $refusal) {
            self::assertStringContainsString($words, $refusal->getMessage());
        }
    }

    /**
     * What is written is read again as the same: texts with every sign that XML or Markdown cares for, any shape of tree.
     */
    public function test_what_is_written_is_read_again_as_the_same(): void
    {
        $random = new Randomizer(new Mt19937(11));
        $bits = ['a', 'ß', '<b>', '&amp;', '"', "'", "\n", "\n\n", '*', '[x](y)', "\t", '|', '😀', ']]>', '- ', '1. ', '  '];
        $text = static fn(int $n): string => trim(implode('', array_map(static fn() => $bits[$random->getInt(0, 16)], range(1, $n))));
        for ($n = 0; $n < 60; $n++) {
            $all = [];
            $level = 0;
            for ($i = 0; $i < 12; $i++) {
                $level = 0 === $i ? 0 : $random->getInt(0, $level + 1);
                $details = 0 === $random->getInt(0, 1) ? ['Owner' => 'x' . $text(4)] : [];
                $title = trim((string) preg_replace('/\s+/u', ' ', "T{$i} " . $text(5)));
                $all[] = ['id' => "ID {$i}", 'title' => $title, 'text' => $text(12), 'details' => $details, 'level' => $level];
            }
            $xml = (new ReqIfWriter('All & more', ['Owner'], new \DateTimeImmutable('2026-11-30T10:00:00Z')))->write($all);
            $records = ReqIfReader::read($xml);
            $above = [];
            foreach ($all as $i => $of) {
                $above[$of['level']] = $of['id'];
                $words = new RequirementWords($of['title'], $of['text'], $of['id'], $of['details']);
                self::assertEquals($words, $records[$i]->words);
                self::assertSame($of['level'] > 0 ? $above[$of['level'] - 1] : '', $records[$i]->parent);
            }
        }
    }

    public function test_words_that_differ_in_blanks_and_case_alone_say_the_same(): void
    {
        $before = new RequirementWords('Fares follow age', "Line one\nline two");
        self::assertTrue($before->saysTheSameAs(new RequirementWords('fares  follow age ', 'Line one line two')));
        self::assertFalse($before->saysTheSameAs(new RequirementWords('Fares follow age', 'Line one')));
    }
}
