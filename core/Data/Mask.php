<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * Hides secret values in text that leaves the walk. The length of the dots tells nothing.
 */
final readonly class Mask
{
    public const DOTS = '••••';

    private const ID = '/([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})/i';

    /** Bytes; a longer value is looked for up to here where a file is read in parts. */
    public const LONGEST_IN_FILES = 20_000;

    private const SHORTEST_IN_FILES = 8;

    /** A shorter value would turn up by chance. */
    private const SHORTEST = 4;

    /** @var list<string> */
    private array $secrets;

    /**
     * @param  list<string>  $secrets
     */
    public function __construct(array $secrets)
    {
        $long = array_values(array_unique(array_filter($secrets, static fn(string $s): bool => mb_strlen($s) >= self::SHORTEST)));
        // The longest first, so that no part of one stays behind when it holds another.
        usort($long, static fn(string $a, string $b): int => \strlen($b) <=> \strlen($a) ?: strcmp($a, $b));
        $this->secrets = $long;
    }

    public function text(string $text): string
    {
        return [] === $this->secrets ? $text : strtr($text, array_fill_keys($this->secrets, self::DOTS));
    }

    /**
     * Hides in a text that may name things by their ids: digits of an id are no secret that turned up in it.
     */
    public function aroundIds(string $text): string
    {
        if ([] === $this->secrets || 1 !== preg_match(self::ID, $text)) {
            return $this->text($text);
        }
        $whole = new self(array_values(array_filter($this->secrets, static fn(string $s): bool => \strlen($s) >= 36)));
        $parts = preg_split(self::ID, $whole->text($text), -1, \PREG_SPLIT_DELIM_CAPTURE) ?: [];

        return implode(
            '',
            array_map(fn(string $part, int $i): string => 1 === $i % 2 ? $part : $this->text($part), $parts, array_keys($parts)),
        );
    }

    /**
     * Hides in the bytes of a text file, whichever of the usual character sets it has.
     */
    public function bytes(string $text): string
    {
        $charset = match (true) {
            str_starts_with($text, "\xFF\xFE") => 'UTF-16LE',
            str_starts_with($text, "\xFE\xFF") => 'UTF-16BE',
            mb_check_encoding($text, 'UTF-8') => 'UTF-8',
            default => 'Windows-1252',
        };
        if ([] === $this->secrets || 'UTF-8' === $charset) {
            return $this->text($text);
        }
        $in = static fn(string $one): string => mb_convert_encoding($one, $charset, 'UTF-8');

        return strtr($text, array_fill_keys(array_map($in, $this->secrets), $in(self::DOTS)));
    }

    /**
     * Whether one of the values stands as it is in bytes that are no text. A short one would turn up there by chance.
     */
    public function isIn(string $bytes): bool
    {
        foreach ($this->secrets as $secret) {
            if (\strlen($secret) >= self::SHORTEST_IN_FILES && str_contains($bytes, $secret)) {
                return true;
            }
        }

        return false;
    }

    public function isEmpty(): bool
    {
        return [] === $this->secrets;
    }
}
