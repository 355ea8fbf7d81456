require_relative "../web_helper"
require_relative "../support/demo_places"
require_relative "../../demo/load"

# Every page, with half a year of the demo in it, on a desk's screen and on a phone's, on light and on dark paper: axe
# finds no fault with it, nothing is wider than the screen, and no words are cut short, not with wider spacing either
# (WCAG 2.1, 1.4.12).
RSpec.describe "Every route" do
  # As the routers have them: of the application, and of the pages for people without an account.
  def routes
    %w[router.ts public/PublicApp.vue].flat_map do |file|
      text = File.read(File.join(Settings::ROOT, "web/src", file))
      text.scan(/path: '([^']+)'/).flatten + of_patterns(text)
    end
  end

  # /^\/book\/([^/]+)\/([^/]+)$/ and its names, as the other router would write it.
  def of_patterns(text)
    text.scan(%r{\[\s*/\^(.+?)\$/,.*?\[([^\]]+)\],?\s*\]}m).map do |pattern, names|
      names = names.scan(/\w+/)
      pattern.gsub("\\/", "/").gsub(/\([^)]*\)/) { ":#{names.shift}" }
    end
  end

  let(:places) { DemoPlaces.new.all }

  let(:wider) do
    <<~CSS
      * { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important }
      p { margin-bottom: 2em !important }
    CSS
  end

  # Words in a box too narrow for them, where what does not fit is hidden. Left alone is what one scrolls, what is there
  # for voices only, and what says all of it when it is pointed at.
  def cut = page.evaluate_script(<<~JS)
    [...document.querySelectorAll('main *')].filter(one => {
      const style = getComputedStyle(one)
      const own = [...one.childNodes].some(node => node.nodeType === 3 && node.textContent.trim())
      return own && one.offsetParent && style.overflowX === 'hidden' && style.clipPath === 'none' &&
        style.visibility !== 'hidden' && style.opacity !== '0' && !one.closest('svg, [title]') &&
        !one.matches('.v-field-label--floating') && one.scrollWidth > one.clientWidth + 1
    }).map(one => `${one.tagName} ${one.className}: ${one.innerText}`)
  JS

  def put_on(theme) = page.execute_script(<<~JS, theme)
    for (const one of document.querySelectorAll('.v-theme--light, .v-theme--dark')) {
      one.classList.remove('v-theme--light', 'v-theme--dark')
      one.classList.add(`v-theme--${arguments[0]}`)
    }
  JS

  def space_words(css) = page.execute_script(<<~JS, css)
    const sheet = new CSSStyleSheet()
    sheet.replaceSync(arguments[0])
    document.adoptedStyleSheets = [sheet]
  JS

  def look(width)
    page.driver.browser.resize(width: width, height: 800)
    {"dark" => %w[color-contrast], "light" => nil}.each do |theme, rules|
      put_on(theme)
      expect_accessible only: rules
    end
    ["", wider].each do |css|
      space_words(css)
      expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= width
      expect(cut).to eq []
    end
    space_words("")
  end

  def loaded
    expect(page).to have_css "main h1"
    page.driver.wait_for_network_idle(connections: 1) # news of a sheet come as they are
  end

  it "is read and used by everybody" do
    $stdout, said = StringIO.new, $stdout
    Demo.new.load
    $stdout = said
    sign_in_as("Marit Hauge")
    faults = routes.flat_map { |route| places.fetch(route, [route]) }.filter_map do |place|
      visit place
      loaded
      [1280, 390].each { |width| look(width) }
      nil
    rescue RSpec::Expectations::ExpectationNotMetError => error
      "#{place}: #{error.message}"
    end
    expect(faults).to be_empty, faults.join("\n\n")
  end
end
