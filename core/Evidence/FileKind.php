<?php

declare(strict_types=1);

namespace LucidStep\Core\Evidence;

/**
 * What a file is: told by its first bytes, and by its name only where they agree. A file that is named as something it is not is
 * refused; what nothing is known of is taken as mere bytes.
 */
final readonly class FileKind
{
    /** So many bytes of its beginning are looked at. */
    public const HEAD = 4096;

    public const BYTES = 'application/octet-stream';

    /** By the end of the name: the media type, and how the bytes begin. None: it is text. */
    private const KINDS = [
        'pdf' => ['application/pdf', ['%PDF-']],
        'zip' => ['application/zip', self::ZIP],
        'docx' => ['application/vnd.openxmlformats-officedocument.wordprocessingml.document', self::ZIP],
        'xlsx' => ['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', self::ZIP],
        'pptx' => ['application/vnd.openxmlformats-officedocument.presentationml.presentation', self::ZIP],
        'odt' => ['application/vnd.oasis.opendocument.text', self::ZIP],
        'ods' => ['application/vnd.oasis.opendocument.spreadsheet', self::ZIP],
        'odp' => ['application/vnd.oasis.opendocument.presentation', self::ZIP],
        'doc' => ['application/msword', self::OLE],
        'xls' => ['application/vnd.ms-excel', self::OLE],
        'ppt' => ['application/vnd.ms-powerpoint', self::OLE],
        'msg' => ['application/vnd.ms-outlook', self::OLE],
        'gz' => ['application/gzip', ["\x1F\x8B"]],
        '7z' => ['application/x-7z-compressed', ["7z\xBC\xAF\x27\x1C"]],
        'gif' => ['image/gif', ['GIF87a', 'GIF89a']],
        'bmp' => ['image/bmp', ['BM']],
        'tif' => ['image/tiff', self::TIFF],
        'tiff' => ['image/tiff', self::TIFF],
        'png' => ['image/png', ["\x89PNG\r\n\x1A\n"]],
        'jpg' => ['image/jpeg', ["\xFF\xD8\xFF"]],
        'jpeg' => ['image/jpeg', ["\xFF\xD8\xFF"]],
        'webp' => ['image/webp', ['RIFF']],
        'heic' => ['image/heic', [self::BOX]],
        'avif' => ['image/avif', [self::BOX]],
        'webm' => ['video/webm', [self::EBML]],
        'mkv' => ['video/x-matroska', [self::EBML]],
        'mp4' => ['video/mp4', [self::BOX]],
        'mov' => ['video/quicktime', [self::BOX]],
        'avi' => ['video/x-msvideo', ['RIFF']],
        'wav' => ['audio/wav', ['RIFF']],
        'ogg' => ['audio/ogg', ['OggS']],
        'csv' => ['text/csv', []],
        'tsv' => ['text/tab-separated-values', []],
        'md' => ['text/markdown', []],
        'json' => ['application/json', []],
        'har' => ['application/json', []],
        'xml' => ['application/xml', []],
        'html' => ['text/html', []],
        'htm' => ['text/html', []],
        'svg' => ['image/svg+xml', []],
        'yaml' => ['application/yaml', []],
        'yml' => ['application/yaml', []],
        'eml' => ['message/rfc822', []],
        'ics' => ['text/calendar', []],
    ];

    private const ZIP = ["PK\x03\x04", "PK\x05\x06"];
    private const OLE = ["\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1"];
    private const TIFF = ["II*\0", "MM\0*"];
    private const EBML = "\x1A\x45\xDF\xA3";

    /** Stands four bytes from the beginning. */
    private const BOX = 'ftyp';

    /** What such a box holds beside recordings that are shown: pictures of telephones, and films of another player. */
    private const NO_RECORDING = ['heic', 'heix', 'mif1', 'msf1', 'avif', 'avis', 'qt  '];

    /** What an operating system runs when somebody opens it. */
    private const RUN = [
        'app',
        'apk',
        'bat',
        'cmd',
        'com',
        'cpl',
        'desktop',
        'dll',
        'dmg',
        'exe',
        'hta',
        'jar',
        'js',
        'jse',
        'lnk',
        'msi',
        'pif',
        'ps1',
        'py',
        'reg',
        'scr',
        'sh',
        'url',
        'vbe',
        'vbs',
        'wsf',
    ];

    private function __construct(public string $mediaType) {}

    /**
     * @param  string  $head the first {@see HEAD} bytes
     * @param  string  $extension of its name, without the dot
     *
     * @throws \DomainException with a sentence for the person, when the name says what the bytes do not
     */
    public static function of(string $head, string $extension): self
    {
        $extension = strtolower($extension);
        [$type, $begins] = self::KINDS[$extension] ?? [null, null];
        if (null === $type || null === $begins) {
            return new self(self::BYTES);
        }
        $fits = [] === $begins ? self::isText($head) : [] !== array_filter($begins, static fn(string $b): bool => self::begins($head, $b));
        if (!$fits) {
            $what = ['image' => 'picture', 'video' => 'recording'][strtok($type, '/')] ?? 'file';
            throw new \DomainException("The file is named .{$extension} but is no such {$what}.");
        }

        return new self($type);
    }

    /**
     * Whether it is text in one of the usual character sets, as far as its first bytes tell.
     */
    public static function isText(string $head): bool
    {
        return str_starts_with($head, "\xFF\xFE") || str_starts_with($head, "\xFE\xFF") || !str_contains($head, "\0");
    }

    /**
     * The kind of a recording that is shown, by its first bytes, whatever it is called.
     *
     * @return 'video/webm'|'video/mp4'|null null when it is none
     */
    public static function recording(string $head): ?string
    {
        return match (true) {
            str_starts_with($head, self::EBML) && str_contains(substr($head, 0, 64), 'webm') => 'video/webm',
            self::begins($head, self::BOX) && !\in_array(substr($head, 8, 4), self::NO_RECORDING, true) => 'video/mp4',
            default => null,
        };
    }

    /**
     * The name to save it under: it ends as its content does, and is nothing that runs when it is opened. The same content may have
     * been taken for another kind that begins alike, under another name: a log is no page because somebody called it one.
     *
     * @param  string  $type the media type it was taken for
     */
    public static function safeName(string $name, string $type): string
    {
        $extension = strtolower(pathinfo($name, \PATHINFO_EXTENSION));
        $isPlain = \in_array($extension, ['txt', 'log'], true);
        $kinds = array_filter(self::KINDS, static fn(array $k): bool => $k[0] === $type);
        $begins = 'text/plain' === $type ? [] : reset($kinds)[1] ?? null;
        if (null === $begins) {
            return \in_array($extension, self::RUN, true) ? "{$name}.bin" : $name;
        }
        if ([] === $begins) {
            return $isPlain || isset($kinds[$extension]) ? $name : "{$name}.txt";
        }

        return $begins === (self::KINDS[$extension][1] ?? null) ? $name : "{$name}." . array_key_first($kinds);
    }

    private static function begins(string $head, string $with): bool
    {
        return self::BOX === $with ? self::BOX === substr($head, 4, 4) : str_starts_with($head, $with);
    }
}
