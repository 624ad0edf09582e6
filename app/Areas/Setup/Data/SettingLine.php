<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * Something that is set in a project, found by its words.
 */
#[OA\Schema(description: 'Something that is set in a project, found by its words.')]
final readonly class SettingLine
{
    public const PLACES = [
        'types',
        'priorities',
        'milestone-types',
        'phases',
        'reasons-pass',
        'reasons-fail',
        'reasons-blocked',
        'reasons-not-applicable',
        'fields',
        'components',
        'defect-fields',
        'labels',
        'axes',
        'configurations',
        'releases',
        'environments',
    ];

    /**
     * @param  value-of<self::PLACES>  $place
     */
    public function __construct(
        #[OA\Property(description: 'Where it is set', enum: self::PLACES)] public string $place,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'What it belongs to, or what it says; empty where the name is all')] public string $of,
    ) {}
}
