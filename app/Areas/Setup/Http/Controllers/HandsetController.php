<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Controllers;

use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\View;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\HandsetAddresses;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\Core\Evidence\HandsetAddress;

/**
 * The frame of the simulated handset.
 */
final class HandsetController
{
    private const STYLE = 'html,body,iframe{display:block;width:100%;height:100%;margin:0;border:0;background:#fff}';

    /**
     * A page around the application under test. Its own rules for content let the frame load from the project's addresses and
     * from nowhere else, wherever a link or an answer in it leads.
     */
    #[
        Get('/projects/{project}/handset', 'A page that frames one of the listed addresses', null, false, [
            'address' => 'what to show; its origin must be one of the project\'s addresses',
        ]),
    ]
    public function show(Request $request, Project $project): Response
    {
        $address = $request->query('address');
        $origins = HandsetAddresses::origins($project);
        if (!\is_string($address) || !\in_array(HandsetAddress::originOf($address), $origins, true)) {
            throw ValidationException::withMessages(['address' => 'The project does not list this address.']);
        }
        $style = base64_encode(hash('sha256', self::STYLE, true));

        return new Response(View::make('handset', ['address' => $address, 'style' => self::STYLE])->render(), Response::HTTP_OK, [
            'Cache-Control' => 'no-store',
            'Content-Security-Policy' =>
                "default-src 'none'; style-src 'sha256-{$style}'; frame-src " .
                implode(' ', $origins) .
                "; base-uri 'none'; form-action 'none'; frame-ancestors 'self'",
        ]);
    }
}
