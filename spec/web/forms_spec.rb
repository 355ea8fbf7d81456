require_relative "../web_helper"

# Forms that lose nothing: drafts, a sign-in that has run out, dates as people write them, and refusals at their field.
RSpec.describe "Forms" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }

  before { sign_in_as("Marit Hauge") }

  it "keep what was typed when they are left, and let it go with Cancel, with a way back" do
    click_link "People & places"
    click_button "Add a person"
    expect(page).to have_css ".v-dialog input:focus"
    type "Ines Torvald"
    type :escape
    expect(page).to have_content "kept as a draft"
    expect(page.evaluate_script("document.activeElement.textContent")).to include "Add a person"
    click_button "Add a person"
    expect(page).to have_content "Your draft is back."
    expect(page).to have_field "Name", with: "Ines Torvald"
    dialog.click_button "Cancel"
    expect(page).to have_content "Nothing was changed."
    click_button "Undo"
    expect(page).to have_field "Name", with: "Ines Torvald"
    page.go_back
    expect(page).to have_no_css ".v-dialog form"
    expect(page).to have_css "h1", text: "People & places"
    click_button "Add a person"
    dialog.click_button "Start anew"
    expect(page).to have_field "Name", with: ""
    dialog.fill_in "Name", with: "Ines"
    dialog.click_button "Add"
    expect(page).to have_css ".v-input--error input:focus"
  end

  it "lead to the first field that is refused, however far above the button it is" do
    visit "/series/new"
    fill_in "Title", with: "Harbour light round"
    choose_from "Call", "A link of your own"
    click_button "Make the series"
    expect(page).to have_content "Give the link of the call, or a number to dial."
    expect(page).to have_css ".v-input--error input:focus"
    expect(page.active_element).to eq find_field("Link of the call")
    expect(page.active_element).not_to be_obscured
    page.active_element.send_keys "https://talk.example/boats"
    click_button "Make the series"
    expect(page).to have_css "h1", text: "Harbour light round"
  end

  # The page makes its dialogs anew, closed, before one of them is opened.
  it "keep what was typed when the whole page goes, and is opened again" do
    visit "/people"
    click_button "Add a person"
    dialog.fill_in "Name", with: "Ines Torvald"
    page.refresh
    expect(page).to have_css "h1", text: "People & places"
    click_button "Add a person"
    expect(page).to have_content "Your draft is back."
    expect(page).to have_field "Name", with: "Ines Torvald"
  end

  it "ask for the sign-in over the form when it has run out, and then send what was typed" do
    visit "/people"
    click_button "Add a person"
    dialog.fill_in "Name", with: "Ines Torvald"
    dialog.fill_in "Mail address", with: "ines@skerrybuoy.example"
    Records::Session.update_all(ended_at: Clock.now)
    dialog.click_button "Add"
    expect(page).to have_css "h2", text: "Sign in again"
    expect_accessible within: ".v-overlay--active:last-of-type .v-card"
    fill_in "Password", with: "not this one"
    click_button "Sign in"
    expect(page).to have_content "do not belong together"
    fill_in "Password", with: Stage::PASSWORD
    click_button "Sign in"
    expect(page).to have_content "Ines Torvald is added"
    expect(Records::Person.where(email: "ines@skerrybuoy.example").count).to eq 1
    click_link "Hours and calendars"
    expect(page).to have_css "h1", text: "Ines Torvald"
  end

  it "read dates, times and lengths as people write them, and say what they did not understand" do
    visit "/series/new"
    today = Core::Zone["Europe/Oslo"].wall(Clock.now).date # as the reader has it
    next_friday = today + ((5 - today.wday) % 7)
    written = ->(date) do
      date.strftime((date.year == today.year) ? "%a %-d %b" : "%a %-d %b %Y").sub(/Sep\b/, "Sept")
    end
    {
      "fri" => next_friday, "+7" => today + 7, "tomorrow" => today + 1,
      (today + 40).strftime("%-d.%-m.") => today + 40, (today + 50).strftime("%-d %b %Y") => today + 50
    }.each do |typed, date|
      fill_in "First date", with: typed
      find_field("Title").click
      expect(page).to have_field "First date", with: written[date]
    end
    fill_in "First date", with: "32 foo"
    find_field("Title").click
    expect(page).to have_content "This is no date."
    {"9.30" => "09:30", "1430" => "14:30", "9" => "09:00", "2 pm" => "14:00"}.each do |typed, time|
      fill_in "Starts at", with: typed
      find_field("Title").click
      expect(page).to have_field "Starts at", with: time
    end
    find_field("Starts at").click
    type :up
    expect(page).to have_field "Starts at", with: "14:15"
    {"1:30" => "1 h 30 min", "90" => "1 h 30 min", "2 h" => "2 h"}.each do |typed, length|
      fill_in "Length", with: typed
      find_field("Title").click
      expect(page).to have_field "Length", with: length
    end
    find("button[aria-label='Pick: First date']").click
    expect(page).to have_css ".v-date-picker"
    expect_accessible within: ".v-date-picker"
    find(
      ".v-date-picker-month__day:not(.v-date-picker-month__day--adjacent) button", text: "15", exact_text: true
    ).click
    expect(page).to have_field "First date", with: /15 /
  end

  it "ask whether hours are meant to pass midnight, and name every day that is at fault" do
    visit "/people/#{marit}"
    fill_in "Monday, from", with: "22"
    fill_in "Monday, to", with: "6"
    find_field("Tuesday, from").click
    expect(page).to have_content "Past midnight, to 06:00 on Tuesday?"
    expect(page).to have_button "Save the hours", disabled: true
    click_button "No, swap them"
    expect(page).to have_field "Monday, from", with: "06:00"
    %w[Tuesday Thursday].each do |day|
      click_button "Add hours on #{day}"
      all_fields = all(:field, "#{day}, from")
      all_fields.last.fill_in(with: "9")
    end
    click_button "Save the hours"
    expect(page).to have_content "Two ranges overlap", count: 2
    find(".v-autocomplete", text: "Time zone").find(".v-field").click
    type "lisbo"
    find(".v-overlay--active .v-list-item", text: "Lisbon").click
    all("button[aria-label^='Remove: Tuesday']").last.click
    all("button[aria-label^='Remove: Thursday']").last.click
    click_button "Save the hours"
    expect(page).to have_content "The hours are saved."
    expect(page).to have_content "Lisbon time"
  end

  it "say at its field what is too long, and break no page with a long word" do
    id = series(marit, {required: wen}, title: "W" * 150, start: "#{today + 7}T10:00", rule: nil)
    visit "/series/#{id}"
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 1280
    click_button "Edit the series"
    dialog.fill_in "Title", with: "W" * 170
    dialog.click_button "Save"
    expect(page).to have_content "This is too long: 160 characters at most."
  end

  it "lead to people, places, groups, sheets by their date, and deeds, whatever the accents and the order" do
    tomas = person("Tomás Queirós")
    use(UseCases::Places, marit).add(id: key, name: "Chart room", time_zone: "Europe/Oslo")
    id = series(
      marit, {required: wen}, title: "Mooring round", start: "#{today + 7}T10:00", rule: "FREQ=WEEKLY;COUNT=3"
    )
    {
      "queiros tomas" => ["Tomás Queirós", "/people/#{tomas}"],
      "room chart" => ["Chart room", "/places/"],
      (today + 14).strftime("%-d %b") => ["Mooring round", "/meetings/#{meeting_ids(id)[1]}"],
      "new series" => ["New series", "/series/new"],
      "person add" => ["Add a person", "/people"],
      "time common" => ["Find a common time", "/common-time"]
    }.each do |typed, (title, path)|
      visit "/actions"
      expect(page).to have_css "h1", text: "Actions"
      page.driver.browser.keyboard.type("/")
      expect(page).to have_css "input[role=combobox]:focus"
      type typed
      expect(page).to have_css "[role=option]", text: title
      find("[role=option]", text: title, match: :first).click
      expect(page).to have_current_path(/\A#{path}/)
    end
  end
end
