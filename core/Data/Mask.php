<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * Hides secret values in text that leaves the walk. The length of the dots tells nothing.
 */
final readonly class Mask
{
    public const DOTS = '••••';

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
}
