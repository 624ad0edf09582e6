<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Evidence;

use LucidStep\Core\Evidence\FileKind;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FileKindTest extends TestCase
{
    #[DataProvider('kinds')]
    public function test_name_and_content_must_agree(string $head, string $extension, ?string $type): void
    {
        if (null === $type) {
            $this->expectException(\DomainException::class);
        }
        self::assertSame($type, FileKind::of($head, $extension)->mediaType);
    }

    /**
     * @return iterable<array{string, string, ?string}>
     */
    public static function kinds(): iterable
    {
        yield ['%PDF-1.4', 'pdf', 'application/pdf'];
        yield ['%PDF-1.4', 'PDF', 'application/pdf'];
        yield [' %PDF-1.4', 'pdf', null];
        yield ["PK\x05\x06", 'zip', 'application/zip'];
        yield ["PK\x03\x04", 'docx', 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'];
        yield ["\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1", 'docx', null];
        yield ["\0\0\0\x20ftypqt  ", 'mov', 'video/quicktime'];
        yield ['ftyp', 'mov', null];
        yield ['<b>', 'html', 'text/html'];
        yield ["\xFF\xFE<\0b\0>\0", 'html', 'text/html'];
        yield ["<b>\0", 'html', null];
        yield ['', 'csv', 'text/csv'];
        yield ['anything', 'unheard-of', FileKind::BYTES];
        yield ["\0", '', FileKind::BYTES];
    }

    public function test_text_is_told_as_the_device_tells_it(): void
    {
        $examples = json_decode((string) file_get_contents(__DIR__ . '/../../shared/text-files.json'), true, 8, \JSON_THROW_ON_ERROR);
        self::assertNotSame([], $examples);
        foreach ((array) $examples as [$hex, $isText]) {
            self::assertSame($isText, FileKind::isText((string) hex2bin(str_replace(' ', '', $hex))), $hex);
        }
    }

    public function test_nothing_is_saved_under_a_name_that_runs_or_says_another_kind(): void
    {
        $names = [
            ['a.pdf', 'application/pdf', 'a.pdf'],
            ['a.exe', 'application/pdf', 'a.exe.pdf'],
            ['a.log', 'text/plain', 'a.log'],
            ['a.html', 'text/plain', 'a.html.txt'],
            ['a.png', 'image/jpeg', 'a.png.jpg'],
            ['a.html', 'text/html', 'a.html'],
            ['run.log', 'text/html', 'run.log'],
            ['data.csv', 'text/html', 'data.csv.txt'],
            ['a.docx', 'application/zip', 'a.docx'],
            ['a.pdf', 'application/zip', 'a.pdf.zip'],
            ['a.exe', FileKind::BYTES, 'a.exe.bin'],
            ['a.PS1', FileKind::BYTES, 'a.PS1.bin'],
            ['a.dump', FileKind::BYTES, 'a.dump'],
            ['dump', FileKind::BYTES, 'dump'],
        ];
        foreach ($names as [$name, $type, $saved]) {
            self::assertSame($saved, FileKind::safeName($name, $type));
        }
    }
}
