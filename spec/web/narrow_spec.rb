require_relative "../web_helper"

# Every dialog on a phone, on light and dark paper: none wider than the screen, and none that axe finds fault with, on a
# desk's screen neither.
RSpec.describe "On a phone, dialogs" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:id) do
    series(
      marit, {required: person("Wen Halloran")}, title: "Mooring round", start: "#{today + 5}T10:00",
      rule: "FREQ=WEEKLY;COUNT=4"
    )
  end

  before do
    page.driver.browser.resize(width: 390, height: 800)
    sign_in_as("Marit Hauge")
  end

  after { page.driver.browser.resize(width: 1280, height: 800) }

  def expect_to_fit
    expect(page).to have_css ".v-overlay--active .v-card"
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    expect(
      page.evaluate_script(
        "Math.max(...[...document.querySelectorAll('.v-overlay--active .v-card')].map(card => " \
          "card.getBoundingClientRect().right))"
      )
    ).to be <= 390
    expect_accessible within: ".v-overlay--active .v-card"
    page.driver.browser.resize(width: 1280, height: 800)
    expect_accessible within: ".v-overlay--active .v-card"
    page.driver.browser.resize(width: 390, height: 800)
  end

  {
    "/people" => ["Add a person", "Import"],
    "/people?show=places" => ["Add a place"],
    "/people?show=groups" => ["Add a group"],
    "/series/:id" => ["Edit the series", "Change the times", "Send the invitation"],
    "/meetings/:meeting" => ["Change this meeting", "Call it off…"],
    "/people/:me" => ["Add a calendar", "Change password"]
  }.each do |path, buttons|
    it "of #{path.sub(/:.*/, "…")} fit: #{buttons.join(", ")}" do
      there = path.sub(":id", id).sub(":meeting", meeting_ids(id).first).sub(":me", marit)
      %w[light dark].each do |theme|
        page.execute_script("localStorage.setItem('left-over:theme', '#{theme}')")
        buttons.each do |button|
          visit there
          click_button button
          expect_to_fit
        end
      end
    end
  end
end
