<?php

declare(strict_types=1);

namespace LucidStep\Core\People;

/**
 * Which key a person presses for which: the keys are exchanged among each other, so that each still does one thing and none is lost.
 */
final readonly class KeyMap
{
    /** The help's own key stays where it is: from there keys are looked up and changed. */
    public const FIXED = '?';

    /**
     * @param  array<array-key, string>  $pressed the key that is pressed, by the one that pages name
     */
    private function __construct(private array $pressed) {}

    /**
     * @param  array<array-key, string>  $pressed the key that is pressed, by the one that pages name
     *
     * @throws UnusableKeys where a key is none that writes one letter, digit or sign, or does two things, or nothing
     */
    public static function of(array $pressed): self
    {
        $named = array_map(strval(...), array_keys($pressed));
        foreach ([...$named, ...array_values($pressed)] as $key) {
            if (1 !== preg_match('/^[\p{L}\p{N}\p{P}\p{S}]$/Du', $key)) {
                throw new UnusableKeys("\"{$key}\" is no key that writes one letter, digit or sign.");
            }
            if (self::FIXED === $key) {
                throw new UnusableKeys('"?" shows the keys and stays where it is.');
            }
        }
        if (\count(array_unique($pressed)) < \count($pressed)) {
            throw new UnusableKeys('One key cannot stand for two.');
        }
        $without = array_diff($named, $pressed);
        if ([] !== $without) {
            throw new UnusableKeys('Without a key would be: ' . implode(' ', $without) . '. Keys are exchanged among each other.');
        }

        return new self(
            array_filter($pressed, static fn(string $key, int|string $n): bool => $key !== (string) $n, \ARRAY_FILTER_USE_BOTH),
        );
    }

    /**
     * @return array<array-key, string> the key that is pressed, by the one that pages name; without those that are the same
     */
    public function toArray(): array
    {
        return $this->pressed;
    }
}
