<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Data;

use LucidStep\App\Models\Evidence;
use OpenApi\Attributes as OA;

/**
 * A file attached to a step or an attempt.
 */
#[OA\Schema(description: 'A file attached to a step or an attempt.')]
final readonly class EvidenceItem
{
    /**
     * @param  ?array<string, mixed>  $markup
     * @param  ?array<string, mixed>  $compared
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public ?int $round,
        #[OA\Property] public ?int $step,
        #[OA\Property] public string $name,
        #[OA\Property] public string $caption,
        #[OA\Property] public string $source,
        #[OA\Property] public ?string $media_type,
        #[OA\Property] public int $bytes,
        #[OA\Property] public ?int $width,
        #[OA\Property] public ?int $height,
        #[OA\Property] public ?string $sha256,
        #[OA\Property(description: 'The address of a link')] public ?string $link,
        #[OA\Property(description: 'Its content was taken out; the trace stays')] public bool $gone,
        #[
            OA\Property(type: 'object', additionalProperties: true, nullable: true, description: 'What was drawn on it'),
        ]
        public ?array $markup,
        #[OA\Property(description: 'The picture with what was drawn on it')] public ?string $marked_url,
        #[
            OA\Property(
                type: 'object',
                additionalProperties: true,
                nullable: true,
                description: 'The comparison with its reference that was kept',
            ),
        ]
        public ?array $compared,
        #[OA\Property] public string $url,
        #[OA\Property] public ?string $thumbnail_url,
        #[OA\Property] public string $added_by_id,
        #[OA\Property] public string $created_at,
    ) {}

    /**
     * @param  Evidence  $e    with file and marked loaded
     * @param  bool  $gone whether its content was taken out
     */
    public static function from(Evidence $e, bool $gone = false): self
    {
        $url = "/api/v1/evidence/{$e->id}";
        $file = $gone ? null : $e->file;

        return new self(
            $e->id,
            $e->round,
            $e->step,
            $e->name,
            $e->caption,
            $e->source,
            $file?->media_type,
            $file->bytes ?? 0,
            $file?->width,
            $file?->height,
            $e->sha256,
            $e->link,
            $gone,
            $gone ? null : $e->markup,
            null === $e->marked_sha256 || $gone ? null : "{$url}/marked?v=" . substr($e->marked_sha256, 0, 8),
            $e->compared,
            null === $file ? '' : "{$url}/file?v=" . substr($file->sha256, 0, 8),
            true === $file?->isPicture() ? "{$url}/thumbnail?v=" . substr($file->sha256, 0, 8) : null,
            $e->added_by_id,
            $e->created_at->toIso8601ZuluString('millisecond'),
        );
    }
}
