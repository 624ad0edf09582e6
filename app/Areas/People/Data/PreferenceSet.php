<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\Core\People\Preferences;
use OpenApi\Attributes as OA;

/**
 * How a person wants to work.
 */
#[OA\Schema(description: 'How a person wants to work.')]
final readonly class PreferenceSet
{
    /**
     * @param  list<KeyChoice>  $keys those that were changed
     * @param  list<NoticeSetting>  $notices of every kind
     */
    public function __construct(
        #[OA\Property(description: "Such as Europe/Berlin; null for the device's")] public ?string $time_zone,
        #[OA\Property(enum: ['system', 'light', 'dark'])] public string $scheme,
        #[OA\Property(enum: ['roomy', 'dense'])] public string $density,
        #[OA\Property(description: 'Whether keys without Ctrl or Alt do something')] public bool $single_keys,
        #[OA\Property(items: new OA\Items(ref: KeyChoice::class))] public array $keys,
        #[OA\Property(items: new OA\Items(ref: NoticeSetting::class))] public array $notices,
    ) {}

    public static function from(Preferences $preferences): self
    {
        $keys = [];
        foreach ($preferences->keys?->toArray() ?? [] as $key => $pressed) {
            $keys[] = new KeyChoice((string) $key, $pressed);
        }

        return new self(
            $preferences->timeZone,
            $preferences->scheme->value,
            $preferences->density->value,
            $preferences->singleKeys,
            $keys,
            array_map(static fn(NoticeKind $k): NoticeSetting => NoticeSetting::from($k, $preferences), NoticeKind::cases()),
        );
    }
}
