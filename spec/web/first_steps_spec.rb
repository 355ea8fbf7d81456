require_relative "../web_helper"

RSpec.describe "First steps" do
  it "lead from an empty database to the first series, by keyboard alone" do
    visit "/"
    expect(page).to have_content "Nobody is here yet"
    expect_accessible
    [
      Settings.set_up_code, :tab, "Marit Hauge", :tab, "marit@skerrybuoy.example", :tab, "short", :enter
    ].each { |keys| type(keys) }
    expect(page).to have_content "at least 12 characters. A few words"
    fill_in "Password, at least 12 characters", with: Stage::PASSWORD
    type(:enter)
    expect(page).to have_content "First steps"
    page.driver.browser.keyboard.type("/")
    expect(page).to have_css "input[role=combobox]:focus"
    type("new ser")
    expect(page).to have_css "[role=option]", count: 2 # and searching for these words
    type(:enter)
    expect(page).to have_css "h1", text: "New series"
    page.execute_script("document.activeElement.blur()")
    page.driver.browser.keyboard.type("?")
    expect(page).to have_content "Keys on this page"
    expect_accessible within: ".v-dialog"
  end

  it "keep a half-filled form through a reload" do
    person("Marit Hauge")
    sign_in_as("Marit Hauge")
    visit "/series/new"
    fill_in "Title", with: "Half a series"
    visit "/series/new"
    expect(page).to have_field "Title", with: "Half a series"
  end

  it "fit a phone, in light and dark" do
    marit = person("Marit Hauge", admin: true)
    id = series(marit, {}, start: "#{today + 3}T09:30")
    meeting = meeting_ids(id).first
    topic(meeting, marit, "Safety round")
    state(meeting, marit, "in_session")
    raise_action(
      meeting, marit, "Order shackles, 24 mm, galvanised, for the six moorings of the east side", owners: [marit]
    )
    place = key
    use(UseCases::Places, marit).add(
      id: place, name: "Chart room", seats: 8, time_zone: "Europe/Oslo", looked_after_by_id: marit
    )
    sign_in_as("Marit Hauge")
    page.driver.browser.resize(width: 390, height: 800)
    [
      "/", "/series", "/series/new", "/series/#{id}", "/meetings/#{meeting}", "/actions", "/people",
      "/people/#{marit}", "/places/#{place}", "/common-time"
    ].each do |path|
      %w[light dark].each do |theme|
        page.execute_script("localStorage.setItem('left-over:theme', '#{theme}')")
        visit path
        expect(page).to have_css "main h1"
        expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
        expect_accessible
      end
    end
  ensure
    page.driver.browser.resize(width: 1280, height: 800)
  end
end
