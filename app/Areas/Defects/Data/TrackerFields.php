<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\Core\Defects\Tracker\TrackerMapping;
use OpenApi\Attributes as OA;

/**
 * How a tracker outside is spoken to.
 */
#[OA\Schema(description: 'How a tracker outside is spoken to.')]
final readonly class TrackerFields
{
    public function __construct(
        #[
            OA\Property(
                type: 'object',
                description: 'Method and path of each act; `{key}` is its name of the defect',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public object $paths,
        #[
            OA\Property(
                type: 'object',
                description: 'In which field each thing goes out',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public object $fields,
        #[
            OA\Property(
                type: 'object',
                description: 'Where each thing stands in an answer, names between dots',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public object $answers,
        #[
            OA\Property(
                type: 'object',
                description: 'What our states are called there',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public object $states,
        #[
            OA\Property(
                type: 'object',
                description: 'What theirs are here',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public object $back,
        #[
            OA\Property(
                type: 'object',
                description: 'What goes with every call; `{token}` is the token',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public object $headers,
    ) {}

    public static function from(TrackerMapping $mapping): self
    {
        return new self(...array_map(static fn(array $of): object => (object) $of, $mapping->toArray()));
    }
}
