<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Models\Evidence;
use OpenApi\Attributes as OA;

/**
 * A file attached to a step or an attempt.
 */
#[OA\Schema(description: 'A file attached to a step or an attempt.')]
final readonly class EvidenceItem
{
    public function __construct(
        #[OA\Property]
        public string $id,
        #[OA\Property]
        public ?int $round,
        #[OA\Property]
        public ?int $step,
        #[OA\Property]
        public string $name,
        #[OA\Property]
        public string $caption,
        #[OA\Property]
        public string $source,
        #[OA\Property]
        public string $media_type,
        #[OA\Property]
        public int $bytes,
        #[OA\Property]
        public ?int $width,
        #[OA\Property]
        public ?int $height,
        #[OA\Property]
        public string $sha256,
        #[OA\Property]
        public string $url,
        #[OA\Property]
        public ?string $thumbnail_url,
        #[OA\Property]
        public string $added_by_id,
        #[OA\Property]
        public string $created_at,
    ) {
    }

    /**
     * @param  Evidence  $e with its file loaded
     */
    public static function from(Evidence $e): self
    {
        $url = "/api/v1/evidence/{$e->id}";

        return new self(
            $e->id, $e->round, $e->step, $e->name, $e->caption, $e->source, $e->file->media_type, $e->file->bytes, $e->file->width, $e->file->height, $e->sha256,
            "{$url}/file", $e->file->isPicture() ? "{$url}/thumbnail" : null, $e->added_by_id, $e->created_at->toIso8601ZuluString('millisecond'),
        );
    }
}
