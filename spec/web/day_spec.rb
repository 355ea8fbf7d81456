require_relative "../web_helper"

# What a meeting needs around it: a mark by which it is known, and a room that is ready.
RSpec.describe "Around a meeting" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:ines) { person("Ines Torvald") }

  it "has a series known by a mark, on its page, in lists, on the Desk, in mail and calendar" do
    week = series(marit, {required: ines}, start: "#{today + 1}T23:00", rule: "FREQ=WEEKLY;COUNT=3")
    sign_in_as "Marit Hauge"
    visit "/series/#{week}"
    click_button "Edit the series"
    within(".v-dialog") { choose "Anchor" }
    keep
    expect(page).to have_css "h1 svg[aria-label=Anchor]"
    visit "/series"
    expect(page).to have_css "a svg[aria-label=Anchor]"
    expect_accessible
    visit "/"
    expect(page).to have_css "svg[aria-label=Anchor]", minimum: 1
    invite(week, marit)
    mail = UseCases::Invitations.new(clock: clock).compose(Records::Mail.find_by!(person_id: ines))
    expect(mail[:calendar]).to include "CATEGORIES:Anchor\r\nCOLOR:black"
    expect(mail[:html]).not_to include "Anchor"
  end

  it "has a room made ready by whoever looks after it, who answers by a link" do
    sign_in_as "Marit Hauge"
    visit "/people?show=places&do=add"
    within(".v-dialog") do
      fill_in "Name", with: "Chart room"
      click_button "Add something"
      fill_in "What", with: "Coffee"
      fill_in "Minutes before", with: "40"
    end
    choose_from "Looked after by", "Ines Torvald"
    keep "Add"
    expect(page).to have_content "Chart room"
    room = Records::Place.find_by!(name: "Chart room")
    expect(room.prepares).to eq [{"name" => "Coffee", "before_min" => 40}]
    id = series(marit, {}, start: "#{today + 1}T09:30", rule: nil, place_id: room.id)
    visit "/meetings/#{meeting_ids(id).first}"
    check "Coffee, 40 min before", allow_label_click: true
    click_button "Tell Ines Torvald"
    expect(page).to have_content "Asked, not confirmed yet"
    path = eventually_mail
    visit path
    page.current_window.resize_to(390, 800)
    expect(page).to have_content "To be ready in Chart room".upcase
    fill_in "A word to Marit Hauge", with: "The urn is broken"
    click_button "I have to say no"
    expect(page).to have_content "You have said no. “The urn is broken”"
    expect_accessible
    page.current_window.resize_to(1280, 800)
    visit "/"
    expect(page).to have_content "Chart room cannot be prepared: “The urn is broken”"
    visit path
    click_button "It will be ready"
    expect(page).to have_content "You have confirmed this."
  end

  def eventually_mail
    source = within_s(15) { Records::Mail.where("reason like 'prepare:%'").pick(:source) }
    Mail.read_from_string(source).text_part.decoded[%r{/preparation/\S+}]
  end

  it "is begun again like another: people, place, call, mark and standing agenda, with dates set afresh" do
    clock.now = Clock.now - 40 * 86_400 # when it was still to come
    week = series(marit, {required: ines}, start: "#{today - 30}T09:30", rule: nil, mark: "bell",
      call: {kind: "standing"}, wording: "Bring your boots")
    clock.back
    use(UseCases::StandingAgenda, marit).set(series_id: week, number: 0, topics: [
      {id: key, title: "Safety first", purpose: "information", length_min: 5, presenter_id: ines, text: nil, sub: false}
    ])
    sign_in_as "Marit Hauge"
    visit "/meetings/#{meeting_ids(week).first}"
    click_link "Again, like this"
    expect(page).to have_content "Begun like Monday mooring round"
    expect(page).to have_field "Title", with: "Monday mooring round"
    fill_in "Title", with: "Once more"
    fill_in "First date", with: (today + 5).iso8601
    click_button "Make the series"
    expect(page).to have_css "h1", text: "Once more"
    made = Records::Series.find_by!(title: "Once more")
    expect(made).to have_attributes(mark: "bell", call_kind: "standing", wording: "Bring your boots", rule: nil)
    expect(Records::Series.find(week)).to have_attributes(title: "Monday mooring round")
    click_link "Open next sheet"
    expect(page).to have_content "Safety first"
    visit "/series/#{week}"
    click_button "More to do with this series"
    find(".v-list-item", text: "Again, like this").click
    expect(page).to have_content "Begun like Monday mooring round"
    visit "/series/#{week}"
    click_button "More to do with this series"
    find(".v-list-item", text: "Start one now with these people").click
    expect(page).to have_field "Title", with: "Monday mooring round"
    expect(page).to have_checked_field "Ines Torvald", visible: :all
  end

  it "moves in from a calendar file, shown before anything is made" do
    start = today + 3
    sign_in_as "Marit Hauge"
    visit "/series/new"
    click_button "From a calendar file"
    pick_file(<<~ICAL.gsub("\n", "\r\n"), ".ics", field: ".v-dialog input[type=file]")
      BEGIN:VCALENDAR
      VERSION:2.0
      BEGIN:VEVENT
      UID:round@elsewhere.example
      DTSTAMP:20250101T000000Z
      SUMMARY:Harbour round
      DTSTART;TZID=Europe/Oslo:#{start.strftime("%Y%m%d")}T093000
      DURATION:PT50M
      RRULE:FREQ=WEEKLY;COUNT=5
      EXDATE;TZID=Europe/Oslo:#{(start + 7).strftime("%Y%m%d")}T093000
      ATTENDEE:mailto:ines@skerrybuoy.example
      END:VEVENT
      END:VCALENDAR
    ICAL
    expect(dialog).to have_content "1 person known here, 0 guests"
    expect(dialog).to have_css "li", text: "Not on #{(start + 7).strftime("%A %-d %B")}"
    keep "Fill the form"
    expect(page).to have_field "Title", with: "Harbour round"
    click_button "Make the series"
    expect(page).to have_css "h1", text: "Harbour round"
    made = Records::Series.find_by!(title: "Harbour round")
    expect(made.meetings.where(state: "called_off").count).to eq 1
    expect(made.members.map(&:person_id)).to include ines
  end
end
