require_relative "../web_helper"

# What a meeting needs besides lines: who is here by keys, who wants to speak, votes, and the view for the chair.
RSpec.describe "A meeting in session" do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran") }
  let(:week) do
    series(
      marit, {required: [wen, person("Lars Ekeli")]}, zone: "UTC", quorum: 2,
      start: (Clock.now + 600).strftime("%Y-%m-%dT%H:%M"), rule: "FREQ=WEEKLY;COUNT=3"
    )
  end
  let(:meeting) { meeting_ids(week).first }

  before do
    topic(meeting, marit, "Boats", length_min: 10)
    topic(meeting, marit, "Rope", length_min: 5)
    state(meeting, marit, "in_session")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
  end

  # A press with the mouse would open the list.
  def on(name, key)
    find_field("#{name} is").execute_script("this.focus()")
    type(key)
  end

  it "marks who is here by keys and when they came, and puts a decision to the vote" do
    on("Lars Ekeli", "h")
    type("c") # the next one has the focus
    expect(page).to have_content "HERE · 2 OF 3"
    type("l")
    fill_in "Wen Halloran came at", with: "9.41"
    type(:tab)
    on("Lars Ekeli", "g")
    expect(page).to have_field "Lars Ekeli left at"
    eventually { Records::Attendance.find_by(person_id: wen)&.stay&.last_at&.strftime("%H:%M") == "09:41" }
    # All of somebody's times, several of them, as one types them.
    fill_in "Wen Halloran came at", with: "9:41-9:50, 9:55-"
    type(:tab)
    expect(page).to have_field "Wen Halloran was here", with: "09:41–09:50, 09:55–"
    expect(find("[data-person='#{wen}'] select").text).to include "09:41–09:50, from 09:55"
    fill_in "Wen Halloran was here", with: "soon"
    type(:tab)
    expect(find("[data-person='#{wen}']")).to have_content "Give the times as"
    expect(page).to have_field "Wen Halloran was here", with: "soon"
    fill_in "Wen Halloran was here", with: "9:42-9:50, 9:56-"
    type(:tab)
    expect(page).to have_field "Wen Halloran was here", with: "09:42–09:50, 09:56–"
    expect(page).to have_no_content "Give the times as"
    find(".entry textarea").click
    type("Agreed: we buy a boat")
    type(:enter)
    expect(page).to have_css ".line.decision", text: "buy a boat"
    click_button "Motion: We buy a boat"
    choose_from "Proposed by", "Wen Halloran"
    choose_from "Seconded by", "Lars Ekeli"
    fill_in "For", with: 2
    fill_in "Against", with: 1
    fill_in "Abstained", with: 1
    keep
    click_button "Save it all the same" # one of them has left
    said = "proposed by Wen Halloran, seconded by Lars Ekeli · carried: 2 for, 1 against"
    expect(page).to have_css ".motion", text: said
    find(".line.decision .edit", text: "Edit").execute_script("this.focus()")
    type("v")
    choose_from "Carried by", "a majority of those present"
    find("label", text: "Votes by name").click
    select "against", from: "Wen Halloran votes"
    select "for", from: "Marit Hauge votes"
    keep
    expect(page).to have_css ".motion", text: "a tie, so not carried: 1 for, 1 against"
    expect(page).to have_css ".line.decision .mark", text: "Motion"
    click_button "Motion: We buy a boat"
    click_button "It was no motion"
    expect(page).to have_no_css ".motion"
    expect(page).to have_css ".line.decision .mark", text: "Decided"
  end

  it "shortens a topic that no longer fits, and takes that back" do
    topic(meeting, marit, "Long talk", length_min: 60)
    find("button", text: "Trim “Long talk” to").click
    expect(page).to have_content(/“Long talk” has \d+ min now/)
    within(".v-snackbar") { click_button "Undo" }
    expect(page).to have_content "“Long talk” has 60 min now"
    eventually { Records::Topic.find_by!(title: "Long talk").length_min == 60 }
  end

  it "is written by a deputy, named here or for the whole series" do
    select "Wen Halloran", from: "May write this time"
    expect(page).to have_content "Wen Halloran may write this time"
    click_button "May not write any more: Wen Halloran"
    expect(page).to have_no_content "may write this time"
    visit "/series/#{week}?show=people"
    check "May write for the keeper: Wen Halloran"
    expect(page).to have_checked_field "May write for the keeper: Wen Halloran"
    eventually { Records::Deputy.exists?(person_id: wen, meeting_id: nil) }
    using_session(:wen) do
      sign_in_as("Wen Halloran")
      visit "/meetings/#{meeting}"
      find(".entry textarea").click
      type("Calm and cold")
      type(:enter)
      expect(page).to have_css ".line", text: "Calm and cold"
    end
    visit "/meetings/#{meeting}"
    expect(page).to have_css ".line", text: "Calm and cold"
    expect(page).to have_content "May write as well: Wen Halloran"
  end

  it "has a view for the chair that follows: what is spoken about, what comes, who wants to speak" do
    select "Wen Halloran", from: "Wants to speak"
    expect(page).to have_css ".speakers li", text: "Wen Halloran"
    click_link "For the chair"
    expect(page).to have_css "h1", text: "Boats"
    expect(page).to have_content(/\d+ min left/)
    expect(page).to have_content "Next: Rope 5 min"
    click_button "Has spoken: Wen Halloran"
    expect(page).to have_no_css ".speakers li"
    using_session(:wen) do
      sign_in_as("Wen Halloran")
      visit "/meetings/#{meeting}"
      click_button "I want to speak"
      expect(page).to have_css ".speakers li", text: "Wen Halloran"
    end
    expect(page).to have_css ".speakers li", text: "Wen Halloran"
    click_button "Go on"
    expect(page).to have_css "h1", text: "Rope"
    expect(page).to have_content "This is the last."
    expect_accessible
  end
end
