require_relative "../web_helper"

# What the invited, the members and those only informed can do.
RSpec.describe "The invited" do
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let!(:gunnar) { person("Gunnar Vik") }
  let!(:id) do
    series(
      marit, {required: wen, informed: gunnar}, title: "Mooring round", start: "#{monday + 14}T14:00",
      rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=20"
    )
  end

  it "find what they have not answered on the Desk, however far ahead, and answer it all at once" do
    invite(id, marit)
    sign_in_as("Wen Halloran")
    expect(page).to have_content "you have not answered for 20 meetings, first #{(monday + 14).strftime("%A %-d %B")}"
    within("section", text: "Waiting for you", match: :first) { click_link "Mooring round" }
    expect(page).to have_content "The next 12 of 20 meetings to come"
    expect(page).to have_checked_field "All 20 that are still open"
    find("[aria-label='Your answer for several']").click_button("I come")
    expect(page).to have_content "Saved: you come, to all that were open."
    visit "/"
    expect(page).to have_no_content "you have not answered"
    expect(Records::Answer.where(person_id: wen, answer: "accepted").count).to eq 20
  end

  it "see the series' time and their own" do
    invite(id, marit)
    sign_in_as("Wen Halloran")
    own = /14:00,? \d\d:00 in Halifax/
    visit "/series"
    expect(page).to have_content own
    click_link "Mooring round"
    expect(page).to have_content(/14:00, \d\d:00 in Halifax/i)
    click_link "Open next sheet"
    expect(page).to have_content(/Oslo time, \d\d:00 in Halifax/)
  end

  it "see for information what is to come as text, its agenda and papers, and say that they will not be there" do
    topic(meeting_ids(id).first, marit, "Batteries", length_min: 12)
    invite(id, marit)
    sign_in_as("Gunnar Vik")
    visit "/series/#{id}"
    expect(page).to have_css "li span.strong", text: (monday + 14).strftime("%A %-d %B")
    expect(page).to have_no_css "ul[aria-label='To come'] a"
    expect_accessible
    click_link "Agenda, papers and dates"
    expect(page).to have_content "Batteries"
    click_button "I will not be there", match: :first
    expect(page).to have_button "I may be there after all"
    expect(Records::Answer.pluck(:person_id, :answer)).to eq [[gunnar, "declined"]]
    expect_accessible
  end

  it "do not see what they have not been told of yet; whoever runs it sees that nobody is invited" do
    Records::Meeting.where(id: meeting_ids(id).first).update_all(
      starts_at: Clock.now + 86_400, ends_at: Clock.now + 88_000
    )
    sign_in_as("Wen Halloran")
    expect(page).to have_no_content "Mooring round"
    Capybara.reset_sessions!
    sign_in_as("Marit Hauge")
    expect(page).to have_content "not invited yet"
  end

  it "find a few sheets at first, and all of them behind a press" do
    invite(id, marit)
    sign_in_as("Wen Halloran")
    visit "/series/#{id}"
    click_button "Sheets"
    expect(page).to have_css "ul[aria-label='To come'] li", count: 6
    click_button "All 20"
    expect(page).to have_css "ul[aria-label='To come'] li", count: 20
  end

  it "are led, in an empty house, from their own hours to the first invitation, each step ticked when it is done" do
    [Records::Event, Records::Meeting, Records::SeriesMember, Records::Series].each(&:delete_all)
    sign_in_as("Marit Hauge")
    expect(page).to have_css "li", text: "Your time zone and working hours"
    expect_accessible
    click_link "Go on: Your time zone and working hours"
    click_button "Add hours on Saturday"
    click_button "Save the hours"
    expect(page).to have_content "The hours are saved."
    click_link "Desk"
    expect(page).to have_link "Go on: Your calendar"
    click_button "Not now"
    expect(page).to have_no_css "h2", text: "First steps"
    click_button "Show the first steps"
    click_link "The first series"
    expect(page).to have_css "h1", text: "New series"
    choose_from "Add a person or group", "Wen Halloran"
    expect(page).to have_content "Nobody who must come is known to be busy"
    fill_in "Starts at", with: "3"
    expect(page).to have_content(/outside the hours of/)
    click_link "Find a better time"
    expect(page).to have_css ".who li", text: "Wen Halloran"
  end
end
