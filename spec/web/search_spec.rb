require_relative "../web_helper"

# What was said, and what was decided, over all series.
RSpec.describe "Looking for words" do
  let(:marit) { person("Marit Hauge") }
  let!(:week) { series(marit, {}, start: 1.day.from_now.strftime("%Y-%m-%dT09:30"), rule: "FREQ=WEEKLY;COUNT=3") }
  let(:meeting) { meeting_ids(week).first }

  def decide(meeting_id, *texts)
    state(meeting_id, marit, "in_session")
    texts.each do |text|
      use(UseCases::Minutes, marit).add(id: key, meeting_id: meeting_id, topic_id: nil, kind: "decision", text: text)
    end
    state(meeting_id, marit, "closed")
  end

  it "leads from anywhere to the line, and from the register to the decision that holds" do
    decide(meeting, "Lift B-09 before the storm", "Paint in May")
    decide(meeting_ids(week)[1], "Leave B-09 where it is")
    sign_in_as("Marit Hauge")
    find("body").send_keys("/")
    type("b-09 storm")
    type(:up)
    type(:enter)
    expect(page).to have_css ".hit mark", text: "storm"
    fill_in "Words", with: "hauge"
    expect(page).to have_link "Marit Hauge"
    choose_from "What", "person"
    fill_in "Words", with: "b-09 storm"
    expect(page).to have_content "Nothing has these words."
    choose_from "What", "topic"
    expect(page).to have_content "Nothing has these words."
    choose_from "What", "decision"
    choose_from "Series", "Monday mooring round"
    click_link "Lift B-09 before the storm"
    expect(page).to have_css "[data-line].found", text: "Lift B-09"
    visit "/series/#{week}?show=decisions"
    click_button "Supersede: #{today.year}/1"
    find("select").find("option", text: "Leave B-09").select_option
    expect(page).to have_content "superseded by #{today.year}/3"
    click_button "It holds again: #{today.year}/1"
    expect(page).to have_no_content "superseded by"
    click_link "Of all series"
    expect(page).to have_content "3 DECISIONS"
    fill_in "Find a decision", with: "paint"
    expect(page).to have_content "1 DECISION"
    choose_from "Series", "Monday mooring round"
    expect(find_link("As CSV")[:href]).to match(/query=paint&seriesId=#{week}/)
    expect_accessible
  end
end
