<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Problems\Problem;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Answers with a stored file. Nothing but a plain picture is shown in the browser, and nothing in it runs.
 */
final readonly class FileResponse
{
    /** How names of files end, by the type that was found in their content. */
    private const ENDS = [
        'text/plain' => ['txt', 'log'],
        'image/png' => ['png'],
        'image/jpeg' => ['jpg', 'jpeg'],
        'image/webp' => ['webp'],
        'video/webm' => ['webm'],
        'video/mp4' => ['mp4'],
    ];

    public function __construct(private Filesystem $files) {}

    /**
     * A small picture of it; the whole one until that is made.
     */
    public function thumbnail(StoredFile $file, string $name): StreamedResponse|JsonResponse
    {
        return 'ready' === $file->thumbnail
            ? $this->stream($file->thumbnailPath(), 'image/webp', $name, true)
            : $this->stream($file->path(), $file->media_type, $name, true);
    }

    public function stream(string $path, string $type, string $name, bool $inline): StreamedResponse|JsonResponse
    {
        $stream = $this->files->exists($path) ? $this->files->readStream($path) : null;
        if (null === $stream) {
            return Problem::notFound()->toResponse(request());
        }

        return new StreamedResponse(
            static function () use ($stream): void {
                fpassthru($stream);
            },
            Response::HTTP_OK,
            [
                'Content-Type' => 'text/plain' === $type ? 'text/plain; charset=utf-8' : $type,
                'Content-Disposition' => HeaderUtils::makeDisposition(
                    $inline ? 'inline' : 'attachment',
                    self::named(str_replace(['/', '\\'], '-', $name), $type),
                    'file',
                ),
                'Content-Security-Policy' => "default-src 'none'; sandbox",
                'Cache-Control' => 'private, max-age=3600',
            ],
        );
    }

    /**
     * A name that ends as its content does: what is saved under it is opened as that, and never run.
     */
    private static function named(string $name, string $type): string
    {
        $ends = self::ENDS[$type] ?? [];

        return [] === $ends || \in_array(mb_strtolower(pathinfo($name, \PATHINFO_EXTENSION)), $ends, true) ? $name : "{$name}.{$ends[0]}";
    }
}
