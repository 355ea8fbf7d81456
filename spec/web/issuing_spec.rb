require_relative "../web_helper"

# After the meeting: what is missing, issued, corrected, approved.
RSpec.describe "Minutes" do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:week) { series(marit, {required: ines}, start: "#{today + 3}T09:30") }

  it "are looked through before they are issued, corrected with a reason, and approved a week later" do
    meeting, following = meeting_ids(week).first(2)
    boats = topic(meeting, marit, "Boats and crew", purpose: "decision")
    state(meeting, marit, "in_session")
    UseCases::Topics.new(by: marit).discuss(meeting_id: meeting, topic_id: boats)
    UseCases::Minutes.new(by: marit).add(id: key, meeting_id: meeting, text: "Someone to order rope", topic_id: boats)
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    click_button "Close the meeting"
    within("section.gaps") do
      expect(page).to have_content(/Before you issue · 3/i)
      expect(page).to have_content "Ines Torvald and Marit Hauge are marked neither here nor absent."
      expect(page).to have_content "“Boats and crew” was for decision; nothing is decided."
      click_button "“Order rope” is nobody's yet and has no date."
    end
    within(".line form") do
      find_field("Owners").click
      find_field("Owners").send_keys("Ines", :enter)
      fill_in "Due", with: "+7"
      click_button "Save"
    end
    # The list above grows shorter, and what stands below moves up.
    expect(page).to have_content(/Before you issue · 2/i)
    click_button "All others are here"
    expect(page).to have_content(/Before you issue · 1/i)
    expect(find(".files a", text: "PDF")[:href]).to end_with "/minutes.pdf"
    click_button "Issue the minutes"
    keep "Issue and send to 2 people"
    expect(page).to have_content "Issued and frozen."
    visit URI(Loading::AnswerLink.address(week, ines)).path # where the entry in a calendar leads
    expect(page).to have_link(text: "(PDF)")
    visit "/meetings/#{meeting}"

    click_button "Correct the minutes…"
    keep "Open them"
    expect(page).to have_content "Say why, for everybody who has the minutes."
    dialog.fill_in "Why", with: "The rope is blue."
    keep "Open them"
    expect(page).to have_content "Being corrected: The rope is blue."
    click_button "Leave them as issued"
    click_button "Correct the minutes…"
    dialog.fill_in "Why", with: "The rope is blue."
    keep "Open them"
    find(".line", text: "Order rope").hover
    click_button "Edit the line: Order rope"
    within(".line form") do
      fill_in "Line", with: "Order blue rope"
      click_button "Save"
    end
    click_button "Issue the correction"
    keep "Issue and send to 2 people"
    within("section.versions") do
      expect(page).to have_content "Corrected: The rope is blue."
      expect([find("del").text, find("ins").text]).to match [/Order rope/, /Order blue rope/]
    end

    visit "/meetings/#{following}"
    click_button "Start the meeting"
    click_button "Hold it now" # another day than planned
    click_button "Approve: minutes of"
    expect(page).to have_content "approved"
    click_button "Not approved after all"
    click_button "Approve: minutes of"
    expect(page).to have_button("Not approved after all")
    visit "/meetings/#{meeting}"
    expect(page).to have_css ".versions", text: /Approved/
    click_link "The series"
    click_button "Decisions"
    expect(page).to have_content "Nothing has been decided yet"
  end

  it "make a register of decisions, looked through by words" do
    meeting = meeting_ids(week).first
    state(meeting, marit, "in_session")
    ["Decided: two boats", "Decided: no sailing above force 6"].each do |text|
      UseCases::Minutes.new(by: marit).add(id: key, meeting_id: meeting, text: text)
    end
    state(meeting, marit, "closed")
    sign_in_as("Marit Hauge")
    visit "/series/#{week}?show=decisions"
    expect(page).to have_css "ol.ruled li", count: 2
    fill_in "Find a decision", with: "force"
    expect(page).to have_css "ol.ruled li", count: 1, text: "No sailing above force 6"
    expect(find("a", text: "As CSV")[:href]).to end_with "/decisions.csv"
    fill_in "Find a decision", with: "boats"
    find("ol.ruled li", text: "Two boats").find("a").click
    expect(page).to have_css ".line.decision.found", text: "Two boats"
  end
end
