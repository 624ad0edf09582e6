<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Queries;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Evidence\Data\PictureComparison;
use LucidStep\App\Areas\Evidence\Data\PictureRegion;
use LucidStep\App\Areas\Evidence\Exceptions\EvidenceConflict;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Evidence\PixelDifference;
use LucidStep\Core\Evidence\PixelRegion;

/**
 * Compares a captured picture with the one that its step should look like.
 */
final readonly class ComparePictures
{
    /** Pictures with more pixels are not compared: it would take too long to wait for. */
    public const MOST_PIXELS = 16_000_000;

    public function __construct(private Filesystem $files) {}

    /**
     * @throws ValidationException when there is nothing to compare with
     * @throws Conflict            when the content of one was taken out
     */
    public function __invoke(Evidence $evidence, string $reference): PictureComparison
    {
        [$difference, $project, $of, $seen, $ignored] = $this->compare($evidence, $reference);
        $around = $difference->around;

        return new PictureComparison(
            $evidence->id,
            $reference,
            "/api/v1/projects/{$project->code}/files/{$reference}",
            "/api/v1/evidence/{$evidence->id}/file",
            "/api/v1/evidence/{$evidence->id}/difference?reference={$reference}",
            $difference->compared,
            $difference->differing,
            round($difference->share(), 6),
            null === $around ? null : new PictureRegion(...$around->toArray()),
            array_map(static fn(PixelRegion $r): PictureRegion => new PictureRegion(...$r->toArray()), $ignored),
            (int) $of->width,
            (int) $of->height,
            (int) $seen->width,
            (int) $seen->height,
        );
    }

    /**
     * @return string the picture of what differs, as PNG
     */
    public function picture(Evidence $evidence, string $reference): string
    {
        [$difference] = $this->compare($evidence, $reference);
        ob_start();
        imagepng($difference->picture, null, 6);

        return (string) ob_get_clean();
    }

    public function difference(Evidence $evidence, string $reference): PixelDifference
    {
        return $this->compare($evidence, $reference)[0];
    }

    /**
     * @return array{PixelDifference, Project, StoredFile, StoredFile, list<PixelRegion>}
     */
    private function compare(Evidence $evidence, string $reference): array
    {
        $project = Project::query()->findOrFail($evidence->project_id);
        $row = DB::table('project_files')->where('project_id', $project->id)->where('sha256', $reference)->first();
        $of = null === $row ? null : StoredFile::query()->find($reference);
        $seen = $evidence->loadMissing('file')->file;
        if (null === $of || !$of->isPicture()) {
            throw ValidationException::withMessages(['reference' => 'There is no such reference picture in this project.']);
        }
        if (null === $seen || !$seen->isPicture()) {
            throw ValidationException::withMessages(['evidence' => 'Only pictures are compared.']);
        }
        if (max((int) $of->width * (int) $of->height, (int) $seen->width * (int) $seen->height) > self::MOST_PIXELS) {
            throw ValidationException::withMessages([
                'evidence' => \sprintf('Pictures of more than %d megapixels are not compared.', intdiv(self::MOST_PIXELS, 1_000_000)),
            ]);
        }
        $ignored = array_values(
            array_map(
                static fn(array $r): PixelRegion => new PixelRegion($r['x'], $r['y'], $r['width'], $r['height']),
                json_decode((string) $row->ignored, true, 16, \JSON_THROW_ON_ERROR),
            ),
        );

        return [PixelDifference::between($this->read($of), $this->read($seen), $ignored), $project, $of, $seen, $ignored];
    }

    private function read(StoredFile $file): \GdImage
    {
        $picture = $this->files->exists($file->path()) ? @imagecreatefromstring((string) $this->files->get($file->path())) : false;
        if (false === $picture) {
            throw EvidenceConflict::contentIsGone();
        }
        imagepalettetotruecolor($picture);

        return $picture;
    }
}
