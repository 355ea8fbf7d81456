require_relative "../web_helper"

# Before the meeting: what each sheet begins with, what members bring, what is sent, and what is said when there is
# nothing.
RSpec.describe "An agenda" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:start) { Clock.now + 26 * 3_600 }
  let!(:week) do
    series(
      marit, {required: wen}, zone: "UTC", start: start.strftime("%Y-%m-%dT%H:%M"), rule: "FREQ=WEEKLY;COUNT=4"
    )
  end
  let(:meetings) { meeting_ids(week) }

  it "begins with what stands on it in the series, and the others are offered what is different" do
    sign_in_as("Marit Hauge")
    visit "/series/#{week}?show=agenda"
    expect(page).to have_content "Nothing stands on it yet."
    2.times { click_button "Add a topic" }
    fill_in "Topic 1", with: "Safety"
    fill_in "Topic 2", with: "Weather"
    all("textarea", visible: true).first.set("Read the **bulletin**")
    click_button "Up: Weather"
    check "A part of the topic above", allow_label_click: true, match: :first, disabled: false
    check "Closed", allow_label_click: true, match: :first
    click_button "Save"
    expect(page).to have_content "Saved. Sheets to come that nobody has worked on follow"
    visit "/meetings/#{meetings[0]}"
    expect(all(".topic h2").map(&:text)).to eq %w[Weather Safety]
    expect(page).to have_css ".topic", text: /Weather\s+closed/
    expect(page).to have_css ".topic .about strong", text: "bulletin"
    click_button "Edit the topic Weather"
    fill_in "Topic", with: "The weather"
    click_button "Save"
    expect(page).to have_css ".topic h2", text: "The weather"
    visit "/series/#{week}?show=agenda"
    click_button "Remove: Safety"
    click_button "Cancel"
    expect(page).to have_field "Topic 2", with: "Safety"
    click_button "Down: Weather"
    click_button "Remove: Weather"
    click_button "Save"
    expect(page).to have_content "Saved."
    visit "/meetings/#{meetings[0]}"
    expect(page).to have_content "The standing agenda has changed: no longer on it: The weather."
    click_button "Leave this sheet as it is"
    expect(page).to have_no_content "The standing agenda has changed"
    expect_accessible
  end

  it "takes what members bring, with text and files, goes out, and says when it has changed" do
    sign_in_as("Wen Halloran")
    visit "/meetings/#{meetings[0]}"
    fill_in "Add a topic", with: "Two boats"
    click_button "Add text …"
    fill_in "Text beneath", with: "See [the chart](https://skerrybuoy.example/chart)"
    click_button "Add"
    expect(page).to have_css ".brought-in li", text: "Two boats"
    fill_in "Add a topic", with: "Rope"
    click_button "Add"
    fill_in "Add a topic", with: "Paint"
    click_button "Add"
    fill_in "Add a topic", with: "Tar"
    click_button "Add"
    click_button "Withdraw: Tar"
    expect(page).to have_no_css ".brought-in li", text: "Tar"
    sign_out
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meetings[0]}"
    click_button "Take it: Two boats"
    expect(page).to have_css ".topic .about a", text: "the chart"
    click_button "To the next meeting: Rope"
    expect(page).to have_no_css ".brought-in li", text: "Rope" # or Paint would move from beneath the hand
    click_button "Not here: Paint"
    fill_in "Why, to who brought it", with: "Ask the yard"
    click_button "Send it back"
    expect(page).to have_no_css ".brought-in"
    select "for Two boats", from: "Papers added are for"
    pick_file("hull by hull", ".txt", field: ".papers input[type=file]")
    expect(page).to have_css ".topic a.paper", text: ".txt"
    click_button "Ask for topics"
    expect(page).to have_content "Everybody is asked for topics by mail in a moment."
    click_button "Undo"
    click_button "Ask for topics"
    expect(Records::Mail.where("reason like 'topics:%'").count).to eq 0
    click_button "Send the agenda"
    fill_in "A few words with it (optional)", with: "Short this time"
    keep "Send"
    expect(page).to have_content "The agenda is on its way to 1 person."
    expect(page).to have_content(/Sent \w+ \d+ \w+, \d\d:\d\d to 1 person\./)
    click_button "Edit the topic Two boats"
    find("label", text: "In writing: taken as read").click
    fill_in "Topic", with: "Three boats"
    click_button "Save"
    expect(page).to have_content "in writing, taken as read"
    expect(page).to have_content "it has changed since"
    click_button "Send it again"
    keep "Send"
    eventually { Records::Mail.exists?(subject: "Agenda changed: Monday mooring round") }
    visit URI(Loading::AnswerLink.address(week, wen)).path
    expect(page).to have_css "li", text: /1 Three boats.*in writing.*See the chart/m
  end

  it "says on the Desk that nothing is on a meeting, which is called off or has topics asked for" do
    invite(week, marit)
    sign_in_as("Marit Hauge")
    expect(page).to have_content "nothing is on it"
    click_button "Ask for topics: Monday mooring round"
    expect(page).to have_content "Everybody is asked for topics by mail in a moment."
    within(".v-snackbar") { click_button "Close" }
    eventually { Records::Mail.where("reason like 'topics:%'").count == 1 }
    click_button "Call it off: Monday mooring round"
    keep "Call it off"
    expect(page).to have_content "“Monday mooring round” is called off."
    expect(page).to have_no_content "nothing is on it"
    expect(Records::Meeting.find(meetings[0]).called_off_reason).to eq "Nothing on it"
  end

  it "takes back whatever was done to topics, and does it again; what is half written waits" do
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meetings[0]}"
    %w[Boats Ropes].each do |title|
      fill_in "Add a topic", with: title
      click_button "Add"
    end
    expect_topics("Boats", "Ropes")
    press([:control, "z"])
    expect_topics("Boats")
    press([:control, :shift, "z"])
    expect_topics("Boats", "Ropes")
    series(marit, {}, title: "Data review")
    click_button "Share: Boats"
    select "Data review", from: "The series it goes to"
    click_button "Share it"
    expect(page).to have_content "It stands in “Data review” too."
    expect(page).to have_css ".shared", text: "Data review: to be taken"
    expect(page).to have_no_field "The series it goes to"
    click_button "Share it with another series"
    expect(page).to have_field "The series it goes to"
    click_button "Shared: Boats"
    click_button "Edit the topic Boats"
    fill_in "Topic", with: "Boats and crew"
    click_button "Save"
    expect_topics("Boats and crew", "Ropes")
    find("button[aria-label='Move Ropes: arrow up or down']").send_keys(:up)
    expect_topics("Ropes", "Boats and crew")
    press([:control, "z"])
    press([:control, "z"])
    expect_topics("Boats", "Ropes")
    click_button "Edit the topic Boats"
    click_button "Remove the topic"
    expect_topics("Ropes")
    visit_again
    expect_topics("Ropes")
    fill_in "Add a topic", with: "Half a tit"
    visit_again
    expect(page).to have_field "Add a topic", with: "Half a tit"
    click_button "Edit the topic Ropes"
    click_button "Remove the topic"
    expect_topics
    press([:control, "z"])
    expect_topics("Ropes")
  end

  def visit_again
    visit "/meetings/#{meetings[0]}"
    expect(page).to have_field "Add a topic"
  end

  def press(*keys) = keys.each { |key| page.driver.browser.keyboard.type(key) }

  def expect_topics(*titles)
    expect(page).to have_css ".topic h2", count: titles.size
    within_s(12) { all(".topic h2").map(&:text) == titles }
    expect(all(".topic h2").map(&:text)).to eq titles
  end
end
