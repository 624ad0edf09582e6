<?php

declare(strict_types=1);

namespace LucidStep\Core\People;

/**
 * How a person wants to work. What nobody chose is as it comes.
 */
final readonly class Preferences
{
    /**
     * @param  ?string  $timeZone such as "Europe/Berlin"; null for the device's
     * @param  bool  $singleKeys whether keys without Ctrl or Alt do something
     * @param  array<string, NoticeChoice>  $notices by kind, those that were chosen
     */
    public function __construct(
        public ?string $timeZone = null,
        public ColorScheme $scheme = ColorScheme::System,
        public Density $density = Density::Roomy,
        public bool $singleKeys = true,
        public ?KeyMap $keys = null,
        public array $notices = [],
    ) {}

    /**
     * @param  array<array-key, mixed>  $kept as {@see toArray()} gives it, also of another release: what is not understood is as it comes
     */
    public static function fromArray(array $kept): self
    {
        $text = static fn(string $name): string => \is_string($kept[$name] ?? null) ? $kept[$name] : '';
        $notices = [];
        foreach (\is_array($kept['notices'] ?? null) ? $kept['notices'] : [] as $kind => $choice) {
            if (\is_array($choice)) {
                $notices[(string) $kind] = new NoticeChoice(true === ($choice['here'] ?? null), true === ($choice['mail'] ?? null));
            }
        }

        return new self(
            '' === $text('time_zone') ? null : $text('time_zone'),
            ColorScheme::tryFrom($text('scheme')) ?? ColorScheme::System,
            Density::tryFrom($text('density')) ?? Density::Roomy,
            false !== ($kept['single_keys'] ?? true),
            self::keys($kept['keys'] ?? null),
            $notices,
        );
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'time_zone' => $this->timeZone,
            'scheme' => $this->scheme->value,
            'density' => $this->density->value,
            'single_keys' => $this->singleKeys,
            'keys' => $this->keys?->toArray() ?? [],
            'notices' => array_map(static fn(NoticeChoice $c): array => ['here' => $c->here, 'mail' => $c->mail], $this->notices),
        ];
    }

    private static function keys(mixed $kept): ?KeyMap
    {
        if (!\is_array($kept)) {
            return null;
        }
        try {
            return KeyMap::of(array_filter($kept, is_string(...)));
        } catch (UnusableKeys) {
            return null;
        }
    }
}
