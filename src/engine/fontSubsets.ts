/** Files with the letters that a shipped font has beyond those of western Europe, by its name and theirs: fetched when a text needs them. */
export const FONT_SUBSETS: Readonly<Record<string, Readonly<Record<string, () => Promise<{ readonly default: string }>>>>> = {
  'Archivo Black': {
    'latin-ext': () => import('@fontsource/archivo-black/files/archivo-black-latin-ext-400-normal.woff2?url'),
  },
  'Hanken Grotesk': {
    'cyrillic-ext': () => import('@fontsource/hanken-grotesk/files/hanken-grotesk-cyrillic-ext-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/hanken-grotesk/files/hanken-grotesk-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/hanken-grotesk/files/hanken-grotesk-vietnamese-700-normal.woff2?url'),
  },
  'Montserrat': {
    'cyrillic': () => import('@fontsource/montserrat/files/montserrat-cyrillic-800-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/montserrat/files/montserrat-cyrillic-ext-800-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/montserrat/files/montserrat-latin-ext-800-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/montserrat/files/montserrat-vietnamese-800-normal.woff2?url'),
  },
  'Poppins': {
    'devanagari': () => import('@fontsource/poppins/files/poppins-devanagari-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/poppins/files/poppins-latin-ext-700-normal.woff2?url'),
  },
  'Rubik': {
    'arabic': () => import('@fontsource/rubik/files/rubik-arabic-700-normal.woff2?url'),
    'cyrillic': () => import('@fontsource/rubik/files/rubik-cyrillic-700-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/rubik/files/rubik-cyrillic-ext-700-normal.woff2?url'),
    'hebrew': () => import('@fontsource/rubik/files/rubik-hebrew-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/rubik/files/rubik-latin-ext-700-normal.woff2?url'),
  },
  'Alfa Slab One': {
    'latin-ext': () => import('@fontsource/alfa-slab-one/files/alfa-slab-one-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/alfa-slab-one/files/alfa-slab-one-vietnamese-400-normal.woff2?url'),
  },
  'Bevan': {
    'latin-ext': () => import('@fontsource/bevan/files/bevan-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/bevan/files/bevan-vietnamese-400-normal.woff2?url'),
  },
  'Zilla Slab': {
    'latin-ext': () => import('@fontsource/zilla-slab/files/zilla-slab-latin-ext-700-normal.woff2?url'),
  },
  'Barlow Condensed': {
    'latin-ext': () => import('@fontsource/barlow-condensed/files/barlow-condensed-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/barlow-condensed/files/barlow-condensed-vietnamese-700-normal.woff2?url'),
  },
  'Bebas Neue': {
    'latin-ext': () => import('@fontsource/bebas-neue/files/bebas-neue-latin-ext-400-normal.woff2?url'),
  },
  'Fjalla One': {
    'cyrillic-ext': () => import('@fontsource/fjalla-one/files/fjalla-one-cyrillic-ext-400-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/fjalla-one/files/fjalla-one-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/fjalla-one/files/fjalla-one-vietnamese-400-normal.woff2?url'),
  },
  'League Gothic': {
    'latin-ext': () => import('@fontsource/league-gothic/files/league-gothic-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/league-gothic/files/league-gothic-vietnamese-400-normal.woff2?url'),
  },
  'Oswald': {
    'cyrillic': () => import('@fontsource/oswald/files/oswald-cyrillic-700-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/oswald/files/oswald-cyrillic-ext-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/oswald/files/oswald-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/oswald/files/oswald-vietnamese-700-normal.woff2?url'),
  },
  'Fredoka': {
    'hebrew': () => import('@fontsource/fredoka/files/fredoka-hebrew-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/fredoka/files/fredoka-latin-ext-700-normal.woff2?url'),
  },
  'Nunito': {
    'cyrillic': () => import('@fontsource/nunito/files/nunito-cyrillic-800-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/nunito/files/nunito-cyrillic-ext-800-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/nunito/files/nunito-latin-ext-800-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/nunito/files/nunito-vietnamese-800-normal.woff2?url'),
  },
  'Quicksand': {
    'latin-ext': () => import('@fontsource/quicksand/files/quicksand-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/quicksand/files/quicksand-vietnamese-700-normal.woff2?url'),
  },
  'Varela Round': {
    'hebrew': () => import('@fontsource/varela-round/files/varela-round-hebrew-400-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/varela-round/files/varela-round-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/varela-round/files/varela-round-vietnamese-400-normal.woff2?url'),
  },
  'Dancing Script': {
    'latin-ext': () => import('@fontsource/dancing-script/files/dancing-script-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/dancing-script/files/dancing-script-vietnamese-700-normal.woff2?url'),
  },
  'Great Vibes': {
    'cyrillic': () => import('@fontsource/great-vibes/files/great-vibes-cyrillic-400-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/great-vibes/files/great-vibes-cyrillic-ext-400-normal.woff2?url'),
    'greek-ext': () => import('@fontsource/great-vibes/files/great-vibes-greek-ext-400-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/great-vibes/files/great-vibes-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/great-vibes/files/great-vibes-vietnamese-400-normal.woff2?url'),
  },
  'Lobster': {
    'cyrillic': () => import('@fontsource/lobster/files/lobster-cyrillic-400-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/lobster/files/lobster-cyrillic-ext-400-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/lobster/files/lobster-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/lobster/files/lobster-vietnamese-400-normal.woff2?url'),
  },
  'Pacifico': {
    'cyrillic': () => import('@fontsource/pacifico/files/pacifico-cyrillic-400-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/pacifico/files/pacifico-cyrillic-ext-400-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/pacifico/files/pacifico-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/pacifico/files/pacifico-vietnamese-400-normal.woff2?url'),
  },
  'Sacramento': {
    'latin-ext': () => import('@fontsource/sacramento/files/sacramento-latin-ext-400-normal.woff2?url'),
  },
  'Caveat Brush': {
    'latin-ext': () => import('@fontsource/caveat-brush/files/caveat-brush-latin-ext-400-normal.woff2?url'),
  },
  'Kaushan Script': {
    'latin-ext': () => import('@fontsource/kaushan-script/files/kaushan-script-latin-ext-400-normal.woff2?url'),
  },
  'Amatic SC': {
    'cyrillic': () => import('@fontsource/amatic-sc/files/amatic-sc-cyrillic-700-normal.woff2?url'),
    'hebrew': () => import('@fontsource/amatic-sc/files/amatic-sc-hebrew-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/amatic-sc/files/amatic-sc-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/amatic-sc/files/amatic-sc-vietnamese-700-normal.woff2?url'),
  },
  'Caveat': {
    'cyrillic': () => import('@fontsource/caveat/files/caveat-cyrillic-700-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/caveat/files/caveat-cyrillic-ext-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/caveat/files/caveat-latin-ext-700-normal.woff2?url'),
  },
  'Indie Flower': {
    'latin-ext': () => import('@fontsource/indie-flower/files/indie-flower-latin-ext-400-normal.woff2?url'),
  },
  'Patrick Hand': {
    'latin-ext': () => import('@fontsource/patrick-hand/files/patrick-hand-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/patrick-hand/files/patrick-hand-vietnamese-400-normal.woff2?url'),
  },
  'Shadows Into Light': {
    'latin-ext': () => import('@fontsource/shadows-into-light/files/shadows-into-light-latin-ext-400-normal.woff2?url'),
  },
  'Black Ops One': {
    'cyrillic-ext': () => import('@fontsource/black-ops-one/files/black-ops-one-cyrillic-ext-400-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/black-ops-one/files/black-ops-one-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/black-ops-one/files/black-ops-one-vietnamese-400-normal.woff2?url'),
  },
  'Saira Stencil One': {
    'latin-ext': () => import('@fontsource/saira-stencil-one/files/saira-stencil-one-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/saira-stencil-one/files/saira-stencil-one-vietnamese-400-normal.woff2?url'),
  },
  'Alumni Sans Collegiate One': {
    'cyrillic': () => import('@fontsource/alumni-sans-collegiate-one/files/alumni-sans-collegiate-one-cyrillic-400-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/alumni-sans-collegiate-one/files/alumni-sans-collegiate-one-latin-ext-400-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/alumni-sans-collegiate-one/files/alumni-sans-collegiate-one-vietnamese-400-normal.woff2?url'),
  },
  'Abril Fatface': {
    'latin-ext': () => import('@fontsource/abril-fatface/files/abril-fatface-latin-ext-400-normal.woff2?url'),
  },
  'Cormorant Garamond': {
    'cyrillic': () => import('@fontsource/cormorant-garamond/files/cormorant-garamond-cyrillic-700-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/cormorant-garamond/files/cormorant-garamond-cyrillic-ext-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/cormorant-garamond/files/cormorant-garamond-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/cormorant-garamond/files/cormorant-garamond-vietnamese-700-normal.woff2?url'),
  },
  'Lora': {
    'cyrillic': () => import('@fontsource/lora/files/lora-cyrillic-700-normal.woff2?url'),
    'cyrillic-ext': () => import('@fontsource/lora/files/lora-cyrillic-ext-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/lora/files/lora-latin-ext-700-normal.woff2?url'),
    'math': () => import('@fontsource/lora/files/lora-math-700-normal.woff2?url'),
    'symbols': () => import('@fontsource/lora/files/lora-symbols-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/lora/files/lora-vietnamese-700-normal.woff2?url'),
  },
  'Playfair Display': {
    'cyrillic': () => import('@fontsource/playfair-display/files/playfair-display-cyrillic-700-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/playfair-display/files/playfair-display-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/playfair-display/files/playfair-display-vietnamese-700-normal.woff2?url'),
  },
  'Limelight': {
    'latin-ext': () => import('@fontsource/limelight/files/limelight-latin-ext-400-normal.woff2?url'),
  },
  'Monoton': {
    'latin-ext': () => import('@fontsource/monoton/files/monoton-latin-ext-400-normal.woff2?url'),
  },
  'Poiret One': {
    'cyrillic': () => import('@fontsource/poiret-one/files/poiret-one-cyrillic-400-normal.woff2?url'),
    'latin-ext': () => import('@fontsource/poiret-one/files/poiret-one-latin-ext-400-normal.woff2?url'),
  },
  'Righteous': {
    'latin-ext': () => import('@fontsource/righteous/files/righteous-latin-ext-400-normal.woff2?url'),
  },
  'Grenze Gotisch': {
    'latin-ext': () => import('@fontsource/grenze-gotisch/files/grenze-gotisch-latin-ext-700-normal.woff2?url'),
    'vietnamese': () => import('@fontsource/grenze-gotisch/files/grenze-gotisch-vietnamese-700-normal.woff2?url'),
  },
  'New Rocker': {
    'latin-ext': () => import('@fontsource/new-rocker/files/new-rocker-latin-ext-400-normal.woff2?url'),
  },
  'Pirata One': {
    'latin-ext': () => import('@fontsource/pirata-one/files/pirata-one-latin-ext-400-normal.woff2?url'),
  },
};
